/** Figures as PDF: an entry of its own, since the library that writes them is large. */
export { paintPdf, type PdfOptions } from './map/paint/paintPdf';
