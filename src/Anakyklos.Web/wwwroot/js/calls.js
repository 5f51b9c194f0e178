// Two people at one screen: the one who presses and the one at the screw take turns, by a tap on their half, a key or a pedal. A stroke
// counts once the screw is shut again; half of one is nothing. No screw is opened and shut in half a second: a pedal that bounces is not
// heard twice.
const BOUNCE = 500;

export function calls() {
  return {
    isDown: false,
    settled: false,
    get isUp() {
      return !this.settled;
    },
    get cab() {
      return this.isDown ? '' : 'turn';
    },
    get wheel() {
      return this.isDown ? 'turn' : '';
    },
    get downKey() {
      return this.isDown ? null : 'a';
    },
    get shutKey() {
      return this.settled ? 'a' : null;
    },
    down() {
      if (this.isDown) return;
      this.isDown = true;
      setTimeout(() => (this.settled = true), BOUNCE);
    },
  };
}
