// @ts-check
/**
 * Which versions of a study are the same but for the value of a slider; no DOM.
 *
 * A drag that ends commits the value of its slider, which makes a new version. When the next drag
 * moves the same slider, nothing else is different: what was answered before is still true.
 */
export class VersionAliases {
  /** @param {number} version */
  constructor(version) {
    /** Versions that are the same but for the value of one slider, the first one in front, */
    this.versions = [version];
    /** and this slider; none while there is one version only. @type {number | null} */
    this.slider = null;
  }

  /** A version was committed. @param {number} version @param {any[]} commands what led to it; none if it was not commands. */
  goOn(version, commands) {
    const [only] = commands;
    if (commands.length === 1 && only.do === "set" && (this.slider ?? only.id) === only.id) {
      this.versions.push(version);
      this.slider = only.id;
      return;
    }
    this.versions = [version];
    this.slider = null;
  }

  /** The version under which the answer to a request is stored. @param {{version: number, drafts?: any[]}} body @returns {number} */
  versionOf({ version, drafts = [] }) {
    const isSet = drafts.length === 1 && drafts[0].do === "set" && drafts[0].id === this.slider;
    return isSet && this.versions.includes(version) ? this.versions[0] : version;
  }
}
