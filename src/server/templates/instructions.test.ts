import { describe, expect, it } from 'vitest';
import { picturesIn, sanitiseInstructions, withPictures } from './stored/instructions.ts';

const ID = '0190a000-0000-7000-8000-000000000000';

describe('a table', () => {
  it('claims no more cells than anybody writes, whatever is pasted', () => {
    const table = (cell: string) => sanitiseInstructions(`<table><tbody><tr>${cell}</tr></tbody></table>`);
    expect(table('<td colspan="99999999" rowspan="3">x</td>')).toContain('<td colspan="40" rowspan="3">x</td>');
    expect(table('<td colspan="1e9">x</td>')).toContain('<td colspan="40">x</td>');
    expect(table('<th rowspan="-2" colspan="wide">x</th>')).toContain('<th>x</th>');
  });
});

describe('instructions', () => {
  it.each([
    ['<p>ok</p><script>alert(1)</script>', '<p>ok</p>'],
    ['<p onclick="alert(1)">x</p>', '<p>x</p>'],
    ['<img src=x onerror=alert(1)>', ''],
    ['<p><a href="javascript:alert(1)">x</a></p>', '<p><a target="_blank" rel="noopener noreferrer">x</a></p>'],
    ['<p><a href="//evil.example">x</a></p>', '<p><a target="_blank" rel="noopener noreferrer">x</a></p>'],
    ['<iframe src="/"></iframe><p>x</p>', '<p>x</p>'],
    ['<p style="position:fixed">x</p>', '<p>x</p>'],
    ['<svg><script>alert(1)</script></svg><p>x</p>', '<p>x</p>'],
    [
      '<form action="/x"><input type="password"><p>x</p></form>',
      '<input type="checkbox" disabled="disabled" /><p>x</p>',
    ],
    [`<p>x</p><img src="/api/files/${ID}/../../session">`, '<p>x</p>'],
    ['<p>x</p><img src="data:image/svg+xml;base64,PHN2Zz4=">', '<p>x</p>'],
    ['<math><mtext><style><img src=x onerror=alert(1)></style></mtext></math><p>x</p>', '<p>x</p>'],
    ['<p></p>', ''],
    ['<p>&nbsp;</p>', ''],
  ])('%s become %s', (given, kept) => {
    expect(sanitiseInstructions(given)).toBe(kept);
  });

  it('keep what the editor makes', () => {
    const text = `<h2>Gas</h2><ul><li><p>a <strong>b</strong></p></li></ul><table><tbody><tr><th colspan="2"><p>x</p></th></tr></tbody></table><img src="/api/files/${ID}" alt="test point" />`;
    expect(sanitiseInstructions(text)).toBe(text);
    const list =
      '<ul data-type="taskList"><li data-checked="true" data-type="taskItem"><label><input type="checkbox" checked="checked"><span></span></label><div><p>x</p></div></li></ul>';
    expect(sanitiseInstructions(list)).toContain('data-checked="true"');
  });

  it('are the same when they are cleaned twice', () => {
    const text = '<h1>A</h1><p>x &lt;script&gt; <b>y</b> <a href="https://example.org/?a=1&b=2">z</a></p>';
    const once = sanitiseInstructions(text);
    expect(sanitiseInstructions(once)).toBe(once);
  });

  it('name their pictures, which can be replaced', () => {
    const text = `<img src="/api/files/${ID}" /><img src="/api/files/${ID}" />`;
    expect(picturesIn(text)).toEqual([ID]);
    const other = ID.replace('a', 'b');
    expect(picturesIn(withPictures(text, new Map([[ID, other]])))).toEqual([other]);
  });
});
