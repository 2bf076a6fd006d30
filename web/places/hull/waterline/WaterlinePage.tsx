export function WaterlinePage() {
  return null;
}
