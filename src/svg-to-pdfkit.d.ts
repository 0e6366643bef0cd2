declare module 'svg-to-pdfkit' {
  export default function svgToPdf(
    pdf: PDFKit.PDFDocument,
    svg: string,
    x: number,
    y: number,
    options?: { width?: number; height?: number; fontCallback?: () => string },
  ): void;
}
