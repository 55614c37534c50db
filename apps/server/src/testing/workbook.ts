import { strToU8, zipSync } from 'fflate';

/** A workbook as other programs write it: one sheet for each name, cells as inline text, or the rows as they stand in the file. */
export function workbook(sheets: Record<string, string[][] | string>): Uint8Array {
  const names = Object.keys(sheets);
  const column = (i: number): string => String.fromCharCode(65 + i);
  const escape = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;');
  const sheet = (rows: string[][] | string): string =>
    `<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"><sheetData>${typeof rows === 'string' ? rows : written(rows)}</sheetData></worksheet>`;
  const written = (rows: string[][]): string =>
    rows
      .map(
        (row, r) =>
          `<row r="${r + 1}">${row.map((cell, c) => `<c r="${column(c)}${r + 1}" t="inlineStr"><is><t>${escape(cell)}</t></is></c>`).join('')}</row>`,
      )
      .join('');
  const types = names
    .map(
      (_, i) =>
        `<Override PartName="/xl/worksheets/sheet${i + 1}.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.worksheet+xml"/>`,
    )
    .join('');
  return zipSync({
    '[Content_Types].xml': strToU8(
      `<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/xl/workbook.xml" ContentType="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet.main+xml"/>${types}</Types>`,
    ),
    '_rels/.rels': strToU8(
      '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="rId1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument" Target="xl/workbook.xml"/></Relationships>',
    ),
    'xl/workbook.xml': strToU8(
      `<workbook xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"><sheets>${names
        .map((name, i) => `<sheet name="${name}" sheetId="${i + 1}" r:id="rId${i + 1}"/>`)
        .join('')}</sheets></workbook>`,
    ),
    'xl/_rels/workbook.xml.rels': strToU8(
      `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">${names
        .map(
          (_, i) =>
            `<Relationship Id="rId${i + 1}" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/worksheet" Target="worksheets/sheet${i + 1}.xml"/>`,
        )
        .join('')}</Relationships>`,
    ),
    ...Object.fromEntries(
      names.map((name, i) => [`xl/worksheets/sheet${i + 1}.xml`, strToU8(sheet(sheets[name]))]),
    ),
  });
}
