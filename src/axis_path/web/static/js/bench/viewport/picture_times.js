// @ts-check
/** How long pictures take: the viewport asks for them no faster than they can be shown. */
export class PictureTimes {
  constructor() {
    /** When a picture was asked for last, in ms. */
    this.sentAt = -Infinity;
    /** How long it took lately until a new picture stood on the screen, in ms: since it was there, */
    this.showing = 0;
    /** and since it was asked for. */
    this.coming = 0;
  }

  /** Note that a picture is asked for. */
  send() {
    this.sentAt = performance.now();
  }

  /** Note how long it takes until the frame that is begun has been handed over. @param {number} sentAt when it was asked for. */
  show(sentAt) {
    const began = performance.now();
    requestAnimationFrame(() =>
      setTimeout(() => {
        const now = performance.now();
        this.showing = (this.showing + now - began) / 2;
        this.coming = (this.coming + now - sentAt) / 2;
      }),
    );
  }
}
