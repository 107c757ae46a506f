import { render } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { quickComputedStyle } from './quick-style.ts';

/** jsdom's own, in a window that nothing was replaced in. */
function inOwnWindow() {
  const frame = document.createElement('iframe');
  document.body.append(frame);
  const own = frame.contentWindow as Window & typeof globalThis;
  return { own, body: own.document.body, done: () => frame.remove() };
}

const PAGE = `
  <p>A paragraph with <b>bold</b>, <a href="/">a link</a> and <code>code</code></p>
  <div style="display: none"><span>hidden</span></div>
  <div style="visibility: hidden"><span>in what is hidden</span><span style="visibility: visible">not</span></div>
  <div hidden>hidden</div><p hidden>hidden</p><span hidden="until-found">found</span>
  <dialog>shut</dialog><dialog open>open</dialog>
  <details><summary>more</summary><p>within</p></details><details open><summary>more</summary><p>within</p></details>
  <table><caption>Tasks</caption><thead><tr><th>What</th></tr></thead><tbody><tr><td>Ropes</td></tr><tr hidden><td></td></tr></tbody></table>
  <ul><li>one</li></ul><form><fieldset><legend>Who</legend><input type="hidden"><input type="checkbox"><input></fieldset></form>
  <select><option>one</option></select><textarea></textarea><button type="button" style="pointer-events: none">no</button>
  <svg><title>A mark</title><g><path d="M0 0"></path></g></svg><template></template><style></style><progress></progress>`;

describe('styles told quickly', () => {
  it('are those that jsdom works out', () => {
    const { own, body, done } = inOwnWindow();
    body.innerHTML = PAGE;
    const all = [...body.querySelectorAll('*')];
    const seen = () =>
      all.map((one) => {
        const style = own.getComputedStyle(one);
        return [one.outerHTML, style.display, style.getPropertyValue('display'), style.visibility, style.pointerEvents];
      });
    const slow = seen();
    quickComputedStyle(own);
    const quick = seen();
    expect(quick).toEqual(slow);
    expect(slow.map(([, display]) => display)).toEqual(
      expect.arrayContaining(['none', 'block', 'inline', 'table-row']),
    );
    done();
  });

  it('leaves all else to jsdom', () => {
    const { getByText } = render(<p style={{ color: 'rgb(1, 2, 3)' }}>coloured</p>);
    const style = window.getComputedStyle(getByText('coloured'));
    expect(style.color).toBe('rgb(1, 2, 3)');
    expect(style.getPropertyValue('color')).toBe('rgb(1, 2, 3)');
    expect(style.getPropertyPriority('color')).toBe('');
    expect(style.pointerEvents).toBe('auto');
  });
});
