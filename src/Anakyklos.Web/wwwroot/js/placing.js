// Points on a drawing of a sheet: dragged, or moved with the arrow keys; where they sit stands in the fields below.
const fieldOf = (svg, at, axis) => document.querySelector(`[name="${CSS.escape(`${svg.dataset.placing}[${at}].${axis}`)}"]`);

function put(point, x, y) {
  const svg = point.ownerSVGElement;
  const [wide, high] = [Math.min(100, Math.max(0, Math.round(x))), Math.min(120, Math.max(0, Math.round(y)))];
  point.setAttribute('transform', `translate(${wide} ${high})`);
  for (const [axis, value] of [['x', wide], ['y', high]]) {
    const field = fieldOf(svg, point.dataset.at, axis);
    if (field) field.value = value;
  }
}

const placeOf = (point) => point.getAttribute('transform').match(/-?[\d.]+/g).map(Number);

export function placing() {
  let held = null;
  addEventListener('pointerdown', (e) => {
    held = e.target.closest?.('.placing-point') ?? null;
    if (held) e.preventDefault();
    held?.focus();
  });
  addEventListener('pointermove', (e) => {
    if (!held?.isConnected) return;
    const svg = held.ownerSVGElement;
    const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM().inverse());
    put(held, at.x, at.y);
  });
  for (const end of ['pointerup', 'pointercancel']) addEventListener(end, () => (held = null));
  addEventListener('keydown', (e) => {
    const point = e.target.closest?.('.placing-point');
    const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
    if (!point || !step) return;
    e.preventDefault();
    const [x, y] = placeOf(point);
    put(point, x + step[0] * (e.shiftKey ? 5 : 1), y + step[1] * (e.shiftKey ? 5 : 1));
  });
  // Typed into the fields, the point follows.
  addEventListener('input', (e) => {
    const [, path, at, axis] = e.target.name?.match(/^(.*)\[(\d+)\]\.(x|y)$/) ?? [];
    const svg = path && document.querySelector(`[data-placing="${CSS.escape(path)}"]`);
    const point = svg?.querySelector(`[data-at="${at}"]`);
    if (!point || !/^\d+$/.test(e.target.value)) return;
    const place = placeOf(point);
    place[axis === 'x' ? 0 : 1] = Number(e.target.value);
    point.setAttribute('transform', `translate(${place[0]} ${place[1]})`);
  });
}
