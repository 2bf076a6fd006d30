import {
  BufferAttribute,
  BufferGeometry,
  Color,
  DoubleSide,
  Group,
  Mesh,
  MeshBasicMaterial,
  PerspectiveCamera,
  Raycaster,
  Scene,
  ShaderMaterial,
  Vector2,
  WebGLRenderer,
} from 'three';

/** What the page tells the scene. Places on the canvas are in CSS pixels. */
export type ToScene =
  | { type: 'start'; canvas: OffscreenCanvas; width: number; height: number; ratio: number; dark: boolean }
  | { type: 'size'; width: number; height: number }
  | { type: 'mesh'; positions: Float32Array; mirror: boolean; lengthM: number; depthM: number }
  /** `serial` counts the heights that were given from outside: the one it names is new only where the count is. */
  | { type: 'planes'; heightM: number; heelDeg: number; trimDeg: number; bandM: number; serial: number }
  | { type: 'down' | 'move'; x: number; y: number }
  | { type: 'up' }
  | { type: 'turn'; across: number; up: number }
  | { type: 'zoom'; by: number };
/** What the scene tells the page: whether it can draw, and where the waterline was dragged to. */
export type FromScene = { type: 'ready' } | { type: 'none' } | { type: 'height'; heightM: number; serial: number };

const VERTEX =
  'varying vec3 p; void main() { p = position * vec3(1.0, flip, 1.0); gl_Position = projectionMatrix * modelViewMatrix * vec4(p, 1.0); }';
const FRAGMENT = `
  varying vec3 p;
  void main() {
    vec3 n = normalize(cross(dFdx(p), dFdy(p)));
    float light = 0.5 + 0.5 * abs(dot(n, normalize(vec3(0.3, 0.5, 0.8))));
    float f = p.z - height - p.x * trim - p.y * heel;
    vec3 paint = f < 0.0 ? below : f < band ? stripe : above;
    gl_FragColor = vec4(paint * light, 1.0);
  }`;

let scene: HullScene | null = null;

/** The hull in three dimensions, drawn away from the page so that the page never waits for it. */
class HullScene {
  private readonly renderer: WebGLRenderer;
  private readonly camera = new PerspectiveCamera(32, 1, 0.05, 500);
  private readonly root = new Scene();
  private readonly hull = new Group();
  private readonly water: Mesh<BufferGeometry, MeshBasicMaterial>;
  private serial = 0;
  private readonly uniforms = {
    height: { value: 0 },
    trim: { value: 0 },
    heel: { value: 0 },
    band: { value: 0.15 },
    below: { value: new Color('#9c4a3c') },
    stripe: { value: new Color('#e8d9a8') },
    above: { value: new Color('#dfe3e4') },
  };
  private view = { turn: -0.9, lift: 0.32, distance: 20 };
  private middle = 0;
  private half = 5;
  private drag: { what: 'view' | 'water'; x: number; y: number } | null = null;
  private wanted = false;

  constructor(
    canvas: OffscreenCanvas,
    private width: number,
    private height: number,
    ratio: number,
    dark: boolean,
  ) {
    this.renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true });
    this.renderer.setPixelRatio(ratio);
    this.camera.up.set(0, 0, 1);
    const geometry = new BufferGeometry().setAttribute('position', new BufferAttribute(new Float32Array(18), 3));
    this.water = new Mesh(
      geometry,
      new MeshBasicMaterial({
        color: dark ? '#8fb6d8' : '#2b547a',
        transparent: true,
        opacity: 0.28,
        side: DoubleSide,
        depthWrite: false,
      }),
    );
    this.root.add(this.hull, this.water);
    this.resize(width, height);
  }

  resize(width: number, height: number): void {
    this.width = width;
    this.height = height;
    this.renderer.setSize(width, height, false);
    this.camera.aspect = width / height;
    this.camera.updateProjectionMatrix();
    this.draw();
  }

  show(positions: Float32Array, mirror: boolean, lengthM: number, depthM: number): void {
    for (const child of this.hull.children) (child as Mesh).geometry.dispose();
    this.hull.clear();
    const geometry = new BufferGeometry().setAttribute('position', new BufferAttribute(positions, 3));
    for (const flip of mirror ? [1, -1] : [1]) {
      const material = new ShaderMaterial({
        uniforms: this.uniforms,
        vertexShader: `const float flip = ${flip}.0;\n${VERTEX}`,
        fragmentShader: `uniform float height, trim, heel, band; uniform vec3 below, stripe, above;\n${FRAGMENT}`,
        side: DoubleSide,
      });
      this.hull.add(new Mesh(geometry, material));
    }
    this.middle = depthM / 2;
    this.half = lengthM * 0.56;
    this.view.distance = lengthM * 1.9;
    this.lay();
  }

  planes(heightM: number, heelDeg: number, trimDeg: number, bandM: number, serial: number): void {
    const tan = (deg: number) => Math.tan((deg * Math.PI) / 180);
    if (serial !== this.serial) {
      this.serial = serial;
      this.uniforms.height.value = heightM;
    }
    this.uniforms.heel.value = tan(heelDeg);
    this.uniforms.trim.value = tan(trimDeg);
    this.uniforms.band.value = bandM;
    this.lay();
  }

  private lay(): void {
    const { height, heel, trim } = this.uniforms;
    const wide = this.half * 0.55;
    const corner = (x: number, y: number) => [x, y, height.value + x * trim.value + y * heel.value];
    const [a, b, c, d] = [
      corner(-this.half, -wide),
      corner(this.half, -wide),
      corner(this.half, wide),
      corner(-this.half, wide),
    ];
    (this.water.geometry.getAttribute('position') as BufferAttribute).copyArray([a, b, c, a, c, d].flat()).needsUpdate =
      true;
    this.water.geometry.computeBoundingSphere();
    this.draw();
  }

  /** A finger on the water moves the waterline, anywhere else it turns the boat. */
  down(x: number, y: number): void {
    const ray = new Raycaster();
    ray.setFromCamera(new Vector2((x / this.width) * 2 - 1, 1 - (y / this.height) * 2), this.camera);
    const water = ray.intersectObject(this.water)[0];
    const skin = ray.intersectObjects(this.hull.children)[0];
    this.drag = { what: water && (!skin || water.distance < skin.distance) ? 'water' : 'view', x, y };
  }

  move(x: number, y: number): void {
    if (!this.drag) return;
    const [dx, dy] = [x - this.drag.x, y - this.drag.y];
    this.drag = { ...this.drag, x, y };
    if (this.drag.what === 'view') return this.turn(-dx * 0.008, dy * 0.008);
    const metresPerPixel = (2 * this.view.distance * Math.tan((this.camera.fov * Math.PI) / 360)) / this.height;
    const heightM = Math.min(
      this.middle * 2,
      Math.max(0, this.uniforms.height.value - (dy * metresPerPixel) / Math.max(0.3, Math.cos(this.view.lift))),
    );
    this.uniforms.height.value = heightM;
    this.lay();
    tell({ type: 'height', heightM, serial: this.serial });
  }

  up(): void {
    this.drag = null;
  }

  turn(across: number, up: number): void {
    this.view.turn += across;
    this.view.lift = Math.min(1.4, Math.max(-1.2, this.view.lift + up));
    this.draw();
  }

  zoom(by: number): void {
    this.view.distance = Math.min(this.half * 8, Math.max(this.half * 0.8, this.view.distance * Math.exp(by)));
    this.draw();
  }

  /** Drawn once a frame at most, and only when something has changed. */
  private draw(): void {
    if (this.wanted) return;
    this.wanted = true;
    const frame = () => {
      this.wanted = false;
      const { turn, lift, distance } = this.view;
      this.camera.position.set(
        distance * Math.cos(lift) * Math.sin(turn + Math.PI / 2),
        -distance * Math.cos(lift) * Math.cos(turn + Math.PI / 2),
        this.middle + distance * Math.sin(lift),
      );
      this.camera.lookAt(0, 0, this.middle);
      this.renderer.render(this.root, this.camera);
    };
    if (typeof requestAnimationFrame === 'function') requestAnimationFrame(frame);
    else setTimeout(frame, 16);
  }
}

const tell = (message: FromScene) => postMessage(message);

addEventListener('message', ({ data }: MessageEvent<ToScene>) => {
  if (data.type === 'start') {
    try {
      scene = new HullScene(data.canvas, data.width, data.height, data.ratio, data.dark);
      tell({ type: 'ready' });
    } catch {
      tell({ type: 'none' });
    }
    return;
  }
  if (!scene) return;
  switch (data.type) {
    case 'size':
      return scene.resize(data.width, data.height);
    case 'mesh':
      return scene.show(data.positions, data.mirror, data.lengthM, data.depthM);
    case 'planes':
      return scene.planes(data.heightM, data.heelDeg, data.trimDeg, data.bandM, data.serial);
    case 'down':
      return scene.down(data.x, data.y);
    case 'move':
      return scene.move(data.x, data.y);
    case 'up':
      return scene.up();
    case 'turn':
      return scene.turn(data.across, data.up);
    case 'zoom':
      return scene.zoom(data.by);
  }
});
