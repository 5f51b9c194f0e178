// Points on a drawing of a sheet: dragged, or moved with the arrow keys; where they sit stands in the fields below.
const fieldOf = (svg, at, axis) => document.querySelector(`[name="${CSS.escape(`${svg.dataset.placing}[${at}].${axis}`)}"]`);

function write(point, values) {
  for (const [axis, value] of Object.entries(values)) {
    const field = fieldOf(point.ownerSVGElement, point.dataset.at, axis);
    if (field) field.value = value;
  }
}

const within = (value, low, high) => Math.min(high, Math.max(low, Math.round(value)));

function put(point, x, y) {
  const at = { x: within(x, 0, 100), y: within(y, 0, 120) };
  point.setAttribute('transform', `translate(${at.x} ${at.y})`);
  write(point, at);
}

const placeOf = (point) => point.getAttribute('transform').match(/-?[\d.]+/g).map(Number);

// A block is as large as where its corner was put.
function size(point, width, height) {
  const block = point.querySelector('.placing-block');
  const large = { width: within(width, 1, 100), height: within(height, 1, 120) };
  for (const [axis, value] of Object.entries(large)) block.setAttribute(axis, value);
  point.querySelector('.placing-corner').setAttribute('transform', `translate(${large.width} ${large.height})`);
  write(point, large);
}

const pointOf = (thing) => thing.closest('.placing-point');

// What is held is a point, or the corner of a block.
function move(thing, x, y) {
  const [left, top] = placeOf(pointOf(thing));
  if (thing.matches('.placing-corner')) size(pointOf(thing), x - left, y - top);
  else put(thing, x, y);
}

function whereIs(thing) {
  const [x, y] = placeOf(thing);
  if (!thing.matches('.placing-corner')) return [x, y];
  const [left, top] = placeOf(pointOf(thing));
  return [left + x, top + y];
}

export function placing() {
  let held = null;
  addEventListener('pointerdown', (e) => {
    held = e.target.closest?.('.placing-corner, .placing-point') ?? null;
    if (held) e.preventDefault();
    held?.focus();
  });
  addEventListener('pointermove', (e) => {
    if (!held?.isConnected) return;
    const svg = held.ownerSVGElement;
    const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.getScreenCTM().inverse());
    move(held, at.x, at.y);
  });
  for (const end of ['pointerup', 'pointercancel']) addEventListener(end, () => (held = null));
  addEventListener('keydown', (e) => {
    const thing = e.target.closest?.('.placing-corner, .placing-point');
    const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[e.key];
    if (!thing || !step) return;
    e.preventDefault();
    const [x, y] = whereIs(thing);
    move(thing, x + step[0] * (e.shiftKey ? 5 : 1), y + step[1] * (e.shiftKey ? 5 : 1));
  });
  // Typed into the fields, the drawing follows.
  addEventListener('input', (e) => {
    const [, path, at, axis] = e.target.name?.match(/^(.*)\[(\d+)\]\.(x|y|width|height)$/) ?? [];
    const svg = path && document.querySelector(`[data-placing="${CSS.escape(path)}"]`);
    const point = svg?.querySelector(`[data-at="${at}"]`);
    if (!point || !/^\d+$/.test(e.target.value)) return;
    const said = Number(e.target.value);
    const block = point.querySelector('.placing-block');
    if (axis === 'x' || axis === 'y') {
      const place = placeOf(point);
      place[axis === 'x' ? 0 : 1] = said;
      point.setAttribute('transform', `translate(${place[0]} ${place[1]})`);
    } else if (block) {
      block.setAttribute(axis, said);
      const corner = `translate(${block.getAttribute('width')} ${block.getAttribute('height')})`;
      point.querySelector('.placing-corner').setAttribute('transform', corner);
    }
  });
}
