/** What is used of `svg-to-pdfkit`, which comes without types. */
declare module 'svg-to-pdfkit' {
  interface Options {
    readonly width?: number;
    readonly height?: number;
    readonly assumePt?: boolean;
    readonly fontCallback?: (family: string, isBold: boolean, isItalic: boolean) => string;
    readonly imageCallback?: (link: string) => string;
    readonly warningCallback?: (warning: string) => void;
  }
  export default function SVGtoPDF(
    document: unknown,
    svg: string,
    x: number,
    y: number,
    options: Options,
  ): void;
}
