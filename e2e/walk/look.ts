import type { Page } from '@playwright/test';

/** Runs in the page, as text: what compiles this file would leave its own helpers in a function. */
const LOOK = String.raw`
(() => {
  const faults = [];
  const name = (el) => {
    const words = (el.getAttribute('aria-label') || el.textContent || el.getAttribute('name') || '').trim().replace(/\s+/g, ' ');
    return el.tagName.toLowerCase() + ' "' + words.slice(0, 50) + '"';
  };
  const wide = innerWidth;
  // Nothing pushes the page or a part of it sideways.
  for (const el of document.querySelectorAll('html, body, main, main *, header, header *, section, dialog[open], dialog[open] *')) {
    if (el.closest('svg') || el.matches('input, textarea, select, option')) continue;
    const style = getComputedStyle(el);
    const scrolls = el === document.documentElement || /auto|scroll/.test(style.overflowX);
    if (scrolls && el.clientWidth > 0 && el.scrollWidth > el.clientWidth + 1) {
      const inside = [...el.querySelectorAll('*')].find((one) => !one.closest('.sr-only') && one.getBoundingClientRect().right > el.getBoundingClientRect().right + 1 && one.children.length === 0);
      faults.push('sideways by ' + (el.scrollWidth - el.clientWidth) + ' px: ' + name(el).slice(0, 40) + (inside ? ', from ' + name(inside) : ''));
    }
  }
  // Text is whole: within the window, and within whatever clips it.
  const hidden = (el) => {
    const style = getComputedStyle(el);
    // What a closed part holds has a place but is not shown.
    if (!el.checkVisibility({ contentVisibilityAuto: true, visibilityProperty: true })) return true;
    return style.opacity === '0' || el.closest('.sr-only, [aria-hidden="true"]:not(svg *), option, script, style, dialog:not([open])') !== null;
  };
  const seen = [];
  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const el = node.parentElement;
    if (!el || !node.textContent.trim() || hidden(el)) continue;
    const range = document.createRange();
    range.selectNodeContents(node);
    const rects = [...range.getClientRects()].filter((rect) => rect.width > 1 && rect.height > 1);
    for (const rect of rects) {
      const svg = el.closest('svg');
      if (svg) {
        const frame = svg.getBoundingClientRect();
        if (rect.left < frame.left - 2 || rect.right > frame.right + 2 || rect.top < frame.top - 3 || rect.bottom > frame.bottom + 3)
          faults.push('cut by its drawing: "' + node.textContent.trim().slice(0, 40) + '"');
      }
      if (rect.right > wide + 1 || rect.left < -1) faults.push('out of the window: "' + node.textContent.trim().slice(0, 40) + '"');
      for (let up = el; up && up !== document.body; up = up.parentElement) {
        const style = getComputedStyle(up);
        if (style.overflowX === 'visible' && style.overflowY === 'visible') continue;
        const box = up.getBoundingClientRect();
        if (style.overflowX !== 'visible' && (rect.right > box.right + 1.5 || rect.left < box.left - 1.5) && !el.closest('[title]'))
          faults.push('cut off: "' + node.textContent.trim().slice(0, 40) + '" in ' + up.tagName.toLowerCase() + '.' + String(up.className).slice(0, 30));
        if (/hidden|clip/.test(style.overflowY) && (rect.bottom > box.bottom + 3 || rect.top < box.top - 3) && !el.closest('[title]'))
          faults.push('cut off below: "' + node.textContent.trim().slice(0, 40) + '"');
        break;
      }
      let shown = rect;
      for (let up = el; up && up !== document.body; up = up.parentElement) {
        const style = getComputedStyle(up);
        if (style.overflowX === 'visible' && style.overflowY === 'visible') continue;
        const box = up.getBoundingClientRect();
        const [left, right] = [Math.max(shown.left, box.left), Math.min(shown.right, box.right)];
        const [top, bottom] = [Math.max(shown.top, box.top), Math.min(shown.bottom, box.bottom)];
        shown = { left, right, top, bottom, width: right - left, height: bottom - top };
      }
      if (shown.width > 1 && shown.height > 1) seen.push({ rect: shown, text: node.textContent.trim().slice(0, 30), el, svg });
    }
  }
  // No words lie on others. Words of one sentence share a parent; drawings and boxes are compared within themselves.
  for (let i = 0; i < seen.length; i++)
    for (let j = i + 1; j < seen.length; j++) {
      const [a, b] = [seen[i], seen[j]];
      if (a.el === b.el || a.el.contains(b.el) || b.el.contains(a.el)) continue;
      const across = Math.min(a.rect.right, b.rect.right) - Math.max(a.rect.left, b.rect.left);
      const down = Math.min(a.rect.bottom, b.rect.bottom) - Math.max(a.rect.top, b.rect.top);
      if (across > 3 && down > Math.min(a.rect.height, b.rect.height) * 0.45) {
        const layer = (one) => one.el.closest('[class*=absolute], [class*=fixed], [class*=sticky], dialog') ?? null;
        const scroller = (one) => { for (let up = one.el; up; up = up.parentElement) if (/auto|scroll/.test(getComputedStyle(up).overflowY)) return up; return null; };
        // What scrolls under something that stays is hidden by it, not written over.
        if (scroller(a) !== scroller(b)) continue;
        faults.push('on each other: "' + a.text + '" and "' + b.text + '"');
      }
    }
  return [...new Set(faults)].slice(0, 12);
})()`;

/** Each target is on top at its own middle once it was scrolled to. */
const REACH = String.raw`
(() => {
  const faults = [];
  const places = [...document.querySelectorAll('main, main *')].filter((el) => el.scrollHeight > el.clientHeight + 1 && /auto|scroll/.test(getComputedStyle(el).overflowY)).map((el) => [el, el.scrollTop]);
  for (const el of document.querySelectorAll('a[href], button, input, select, textarea, summary, [role=slider], [role=tab], [role=radio]')) {
    if (el.closest('.sr-only, dialog:not([open])') || el.matches('[type=hidden], [type=file], :disabled')) continue;
    if (!el.checkVisibility({ contentVisibilityAuto: true, visibilityProperty: true })) continue;
    const all = el.getClientRects();
    if (all.length === 0) continue;
    const words = (el.getAttribute('aria-label') || el.textContent || el.getAttribute('placeholder') || el.getAttribute('name') || '').trim().replace(/\s+/g, ' ').slice(0, 50);
    el.scrollIntoView({ block: 'center', inline: 'nearest' });
    const rect = el.getClientRects()[0];
    if (rect.width < 2 && rect.height < 2) continue;
    const x = rect.left + rect.width / 2;
    const y = rect.top + rect.height / 2;
    if (rect.width < 6 || rect.height < 6) { faults.push('too small to hit: ' + el.tagName.toLowerCase() + ' "' + words + '" ' + rect.width.toFixed(0) + '×' + rect.height.toFixed(0)); continue; }
    const top = document.elementFromPoint(x, y);
    const label = el.id ? document.querySelector('label[for="' + CSS.escape(el.id) + '"]') : null;
    if (!top || !(el.contains(top) || top.contains(el) && top.closest('label, a, button') || label?.contains(top) || el.closest('label')?.contains(top) || el.closest('svg') && top.closest('svg') === el.closest('svg')))
      faults.push('not reached: ' + el.tagName.toLowerCase() + ' "' + words + '" at ' + x.toFixed(0) + ',' + y.toFixed(0) + (top ? ', under ' + top.tagName.toLowerCase() + ' "' + (top.getAttribute('aria-label') || top.textContent || '').trim().replace(/\s+/g, ' ').slice(0, 40) + '"' : ', outside'));
  }
  for (const [el, at] of places) el.scrollTop = at;
  return [...new Set(faults)].slice(0, 12);
})()`;

/** What still waits for something, in words. */
const WAITS = String.raw`
(() => {
  const text = document.body.innerText;
  const found = /(Reading the records|judging,? \d+ ?%|being made|building, \d+ ?%|Building …|measuring …|Working it out)/.exec(text);
  return found ? found[0] : null;
})()`;

const LONGEST_WAIT_MS = 20_000;

/** Waits until nothing waits any more; says what still does. */
export async function settled(page: Page): Promise<string[]> {
  await page.locator('main').first().waitFor({ timeout: LONGEST_WAIT_MS });
  const until = Date.now() + LONGEST_WAIT_MS;
  let calm = 0;
  for (;;) {
    const waits = (await page.evaluate(WAITS)) as string | null;
    calm = waits ? 0 : calm + 1;
    if (calm >= 2) return [];
    if (Date.now() > until) return [`still waits: ${waits}`];
    await page.waitForTimeout(80);
  }
}

/** All that is wrong with how the page stands now. @param reach whether each target is tried too: it lies where it lay by day. */
export async function look(page: Page, reach = true): Promise<string[]> {
  const faults = (await page.evaluate(LOOK)) as string[];
  return reach ? [...faults, ...((await page.evaluate(REACH)) as string[])] : faults;
}
