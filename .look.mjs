import { chromium } from 'playwright';
const [,, base, ...jobs] = process.argv;
const b = await chromium.launch({ executablePath:'/usr/bin/chromium', args:['--headless','--no-sandbox','--disable-gpu','--disable-quic'] });
for (const j of jobs) {
  const [name, path, size='1280x800', units='metric', act] = j.split('|');
  const [w,h]=size.split('x').map(Number);
  const c = await b.newContext({ viewport:{width:w,height:h}, locale:'en-GB', timezoneId:'Europe/London' });
  await c.addInitScript((u)=>localStorage.setItem('jack-plane/settings', JSON.stringify({painter:'Ines',device:'look',units:{system:u},theme:'chalk'})), units);
  const p = await c.newPage();
  await p.goto(base+path); await p.waitForTimeout(1500);
  if (act) { for (const a of act.split(';;')) { await eval(`(async()=>{${a}})()`); } await p.waitForTimeout(700); }
  await p.screenshot({ path:`/tmp/look/${name}.png` });
  await c.close();
}
await b.close();
