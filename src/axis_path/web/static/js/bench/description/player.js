// @ts-check
/** Plays the sound of a curve: pitch for its height, from left to right between both ears. */

/** @typedef {import("./sound.model.js").Sound} Sound */

const LOUD = 0.16;
const NOISE = 0.05;
const CLICK_HZ = 2400;
const CLICK_S = 0.03;
const TONE_S = 0.18;
/** A tone that begins at once clicks; so it swells. */
const SWELL_S = 0.015;

export class Player {
  constructor() {
    /** @type {AudioContext | null} */
    this.context = null;
    /** What sounds now. @type {AudioScheduledSourceNode[]} */
    this.sources = [];
  }

  /** Whether this browser can play at all. */
  get canPlay() {
    return typeof AudioContext !== "undefined";
  }

  begin() {
    this.stop();
    this.context ??= new AudioContext();
    this.context.resume();
    return this.context;
  }

  /** @param {AudioScheduledSourceNode} source @param {AudioNode} to @param {number} from @param {number} until */
  sound(source, to, from, until) {
    source.connect(to);
    source.start(from);
    source.stop(until);
    this.sources.push(source);
  }

  /** Play a sound. @param {Sound} sound @param {number} seconds */
  play({ tones, clicks }, seconds) {
    const context = this.begin();
    const start = context.currentTime + 0.05;
    const [tone, voice, hiss] = [
      context.createOscillator(),
      context.createGain(),
      context.createGain(),
    ];
    const side = context.createStereoPanner();
    voice.gain.value = hiss.gain.value = 0;
    tones.forEach((hertz, k) => {
      const at = start + (seconds * k) / (tones.length - 1);
      if (hertz !== null) tone.frequency.linearRampToValueAtTime(hertz, at);
      voice.gain.setTargetAtTime(hertz === null ? 0 : LOUD, at, SWELL_S);
      hiss.gain.setTargetAtTime(hertz === null ? NOISE : 0, at, SWELL_S);
    });
    side.pan.setValueAtTime(-1, start);
    side.pan.linearRampToValueAtTime(1, start + seconds);
    side.connect(context.destination);
    voice.connect(side);
    hiss.connect(side);
    this.sound(tone, voice, start, start + seconds);
    this.sound(noiseOf(context), hiss, start, start + seconds);
    for (const part of clicks) this.click(start + part * seconds, side);
  }

  /** @param {number} at @param {AudioNode} to */
  click(at, to) {
    const context = /** @type {AudioContext} */ (this.context);
    const [tone, gain] = [context.createOscillator(), context.createGain()];
    tone.type = "square";
    tone.frequency.value = CLICK_HZ;
    gain.gain.value = LOUD;
    gain.connect(to);
    this.sound(tone, gain, at, at + CLICK_S);
  }

  /** Play a single place. @param {number | null} hertz null for where there is no value. @param {number} part of the width. */
  tone(hertz, part) {
    const context = this.begin();
    const now = context.currentTime;
    const [gain, side] = [context.createGain(), context.createStereoPanner()];
    gain.gain.value = 0;
    gain.gain.setTargetAtTime(hertz === null ? NOISE : LOUD, now, SWELL_S);
    gain.gain.setTargetAtTime(0, now + TONE_S - 3 * SWELL_S, SWELL_S);
    side.pan.value = 2 * part - 1;
    gain.connect(side);
    side.connect(context.destination);
    if (hertz === null) {
      this.sound(noiseOf(context), gain, now, now + TONE_S);
      return;
    }
    const tone = context.createOscillator();
    tone.frequency.value = hertz;
    this.sound(tone, gain, now, now + TONE_S);
  }

  stop() {
    for (const source of this.sources) source.stop();
    this.sources = [];
  }
}

/** A second of noise, over and over. @param {AudioContext} context */
function noiseOf(context) {
  const buffer = context.createBuffer(1, context.sampleRate, context.sampleRate);
  const samples = buffer.getChannelData(0);
  for (let k = 0; k < samples.length; k += 1) samples[k] = 2 * Math.random() - 1;
  const source = context.createBufferSource();
  source.buffer = buffer;
  source.loop = true;
  return source;
}
