/**
 * A ref for a card that is to stay under the hand that presses in it, while others come or go above: what it lies in is scrolled
 * instead, and made longer at its end where that is too short. It lets go when the pointer leaves (a finger leaves with every tap:
 * then when another place is pressed), or scrolls by itself.
 */
export function staysPut(card: HTMLElement | null): (() => void) | undefined {
  const around = card?.parentElement;
  if (!card || !around) return undefined;
  let top: number | null = null;
  const hold = (): void => void (top = card.getBoundingClientRect().top);
  const release = (): void => void (top = null);
  const left = (e: PointerEvent): void => void (e.pointerType !== 'touch' && release());
  const elsewhere = (e: Event): void => void (card.contains(e.target as Node) || release());
  const keep = new MutationObserver(() => {
    if (top === null) return;
    const by = card.getBoundingClientRect().top - top;
    if (Math.abs(by) < 1) return;
    const room = around.scrollHeight - around.clientHeight - around.scrollTop;
    if (by > room) card.style.marginBottom = `${parseFloat(getComputedStyle(card).marginBottom) + by - room}px`;
    around.scrollTop += by;
  });
  keep.observe(around, { childList: true, subtree: true });
  card.addEventListener('pointerdown', hold, true);
  card.addEventListener('pointerleave', left);
  for (const moved of ['wheel', 'touchmove']) around.addEventListener(moved, release, { passive: true });
  window.addEventListener('pointerdown', elsewhere, true);
  return () => {
    keep.disconnect();
    card.removeEventListener('pointerdown', hold, true);
    card.removeEventListener('pointerleave', left);
    for (const moved of ['wheel', 'touchmove']) around.removeEventListener(moved, release);
    window.removeEventListener('pointerdown', elsewhere, true);
  };
}
