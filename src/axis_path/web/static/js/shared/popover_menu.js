// @ts-check
/** A menu that opens beside its button, above everything: by pointer and by keys. */

/** Between the menu and its button, and the edges of the page, in px. */
const GAP_PX = 2;
const EDGE_PX = 6;

/** Its template has the button as `more` and the menu as `menu`. */
export function makePopoverMenu() {
  return {
    isMenuOpen: false,

    toggleMenu() {
      if (this.isMenuOpen) return;
      this.isMenuOpen = true;
      this.$nextTick(() => {
        const menu = this.$refs.menu;
        menu.showPopover();
        this.placeMenu(menu);
        menu.querySelector("button:not(:disabled)").focus();
      });
    },
    /** Put the menu below its button, or above where the page ends. */
    placeMenu(menu) {
      const button = this.$refs.more.getBoundingClientRect();
      const { width, height } = menu.getBoundingClientRect();
      const below = button.bottom + GAP_PX;
      const isAbove = below + height > innerHeight - EDGE_PX;
      const top = isAbove ? button.top - GAP_PX - height : below;
      menu.style.left = `${Math.max(EDGE_PX, button.right - width)}px`;
      menu.style.top = `${Math.max(EDGE_PX, top)}px`;
    },
    /** The browser closes it too: by Escape, or by a press beside it. */
    menuToggled(event) {
      if (event.newState !== "closed") return;
      const hadFocus = this.$refs.menu?.contains(document.activeElement);
      this.isMenuOpen = false;
      if (hadFocus || document.activeElement === document.body) this.$refs.more.focus();
    },
    menuKey(event) {
      const items = [...this.$refs.menu.querySelectorAll("button:not(:disabled)")];
      const at = items.indexOf(document.activeElement);
      const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: -1 }[event.key];
      if (event.key === "Tab") this.$refs.menu.hidePopover();
      if (to === undefined) return;
      event.preventDefault();
      items.at(to % items.length)?.focus();
    },
    chooseItem(item) {
      this.$refs.menu.hidePopover();
      this.$refs.more.focus();
      item.act();
    },
  };
}
