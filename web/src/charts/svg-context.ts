/**
 * A 2D context that writes down what is drawn as SVG. It offers the calls that Chart.js and our own marks make, no more: canvas-to-SVG packages lose
 * dashed lines and clipped areas. Positions are rounded to hundredths of a pixel.
 */
type Matrix = [number, number, number, number, number, number];

interface State {
  matrix: Matrix;
  fillStyle: string;
  strokeStyle: string;
  lineWidth: number;
  lineCap: string;
  lineJoin: string;
  dash: number[];
  dashOffset: number;
  globalAlpha: number;
  font: string;
  textAlign: string;
  textBaseline: string;
  clip: string | null;
}

const START: State = {
  matrix: [1, 0, 0, 1, 0, 0],
  ...{ fillStyle: '#000', strokeStyle: '#000', lineWidth: 1, lineCap: 'butt', lineJoin: 'miter' },
  ...{
    dash: [],
    dashOffset: 0,
    globalAlpha: 1,
    font: '10px sans-serif',
    textAlign: 'start',
    textBaseline: 'alphabetic',
  },
  clip: null,
};

const round = (x: number) => String(Math.round(x * 100) / 100);
const escaped = (text: string) =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);
/** Where a line of text stands against its base line, in parts of the font size. */
const BASELINES: Record<string, number> = { top: 0.8, hanging: 0.8, middle: 0.35, bottom: -0.2, alphabetic: 0 };

export class SvgContext {
  private readonly elements: string[] = [];
  private readonly clips: string[] = [];
  private readonly saved: State[] = [];
  private state: State = { ...START };
  private path = '';
  /** Text is measured by a real context, in the page's own fonts. */
  constructor(
    readonly canvas: { width: number; height: number },
    private readonly ruler: Pick<CanvasRenderingContext2D, 'font' | 'measureText'>,
  ) {}

  save(): void {
    this.saved.push({ ...this.state, matrix: [...this.state.matrix], dash: [...this.state.dash] });
  }
  restore(): void {
    this.state = this.saved.pop() ?? this.state;
  }

  get fillStyle(): string {
    return this.state.fillStyle;
  }
  set fillStyle(value: string) {
    this.state.fillStyle = value;
  }
  get strokeStyle(): string {
    return this.state.strokeStyle;
  }
  set strokeStyle(value: string) {
    this.state.strokeStyle = value;
  }
  get lineWidth(): number {
    return this.state.lineWidth;
  }
  set lineWidth(value: number) {
    this.state.lineWidth = value;
  }
  get lineCap(): string {
    return this.state.lineCap;
  }
  set lineCap(value: string) {
    this.state.lineCap = value;
  }
  get lineJoin(): string {
    return this.state.lineJoin;
  }
  set lineJoin(value: string) {
    this.state.lineJoin = value;
  }
  get lineDashOffset(): number {
    return this.state.dashOffset;
  }
  set lineDashOffset(value: number) {
    this.state.dashOffset = value;
  }
  get globalAlpha(): number {
    return this.state.globalAlpha;
  }
  set globalAlpha(value: number) {
    this.state.globalAlpha = value;
  }
  get font(): string {
    return this.state.font;
  }
  set font(value: string) {
    this.state.font = value;
  }
  get textAlign(): string {
    return this.state.textAlign;
  }
  set textAlign(value: string) {
    this.state.textAlign = value;
  }
  get textBaseline(): string {
    return this.state.textBaseline;
  }
  set textBaseline(value: string) {
    this.state.textBaseline = value;
  }
  setLineDash(dash: readonly number[]): void {
    this.state.dash = [...dash];
  }
  getLineDash(): number[] {
    return [...this.state.dash];
  }

  transform(a: number, b: number, c: number, d: number, e: number, f: number): void {
    const [m0, m1, m2, m3, m4, m5] = this.state.matrix;
    this.state.matrix = [
      m0 * a + m2 * b,
      m1 * a + m3 * b,
      m0 * c + m2 * d,
      m1 * c + m3 * d,
      m0 * e + m2 * f + m4,
      m1 * e + m3 * f + m5,
    ];
  }
  setTransform(a: number, b: number, c: number, d: number, e: number, f: number): void {
    this.state.matrix = [a, b, c, d, e, f];
  }
  resetTransform(): void {
    this.state.matrix = [1, 0, 0, 1, 0, 0];
  }
  translate(x: number, y: number): void {
    this.transform(1, 0, 0, 1, x, y);
  }
  scale(x: number, y: number): void {
    this.transform(x, 0, 0, y, 0, 0);
  }
  rotate(angle: number): void {
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    this.transform(cos, sin, -sin, cos, 0, 0);
  }
  private at(x: number, y: number): string {
    const [a, b, c, d, e, f] = this.state.matrix;
    return `${round(a * x + c * y + e)} ${round(b * x + d * y + f)}`;
  }

  beginPath(): void {
    this.path = '';
  }
  moveTo(x: number, y: number): void {
    this.path += `M${this.at(x, y)}`;
  }
  lineTo(x: number, y: number): void {
    this.path += `${this.path ? 'L' : 'M'}${this.at(x, y)}`;
  }
  bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void {
    this.path += `C${this.at(x1, y1)} ${this.at(x2, y2)} ${this.at(x, y)}`;
  }
  rect(x: number, y: number, width: number, height: number): void {
    this.moveTo(x, y);
    this.lineTo(x + width, y);
    this.lineTo(x + width, y + height);
    this.lineTo(x, y + height);
    this.closePath();
  }
  arc(x: number, y: number, r: number, from: number, to: number): void {
    const [start, end] = [
      this.at(x + r * Math.cos(from), y + r * Math.sin(from)),
      this.at(x + r * Math.cos(to), y + r * Math.sin(to)),
    ];
    const radius = round(r);
    if (Math.abs(to - from) >= 2 * Math.PI - 1e-9) {
      const across = this.at(x - r * Math.cos(from), y - r * Math.sin(from));
      this.path += `M${start}A${radius} ${radius} 0 1 1 ${across}A${radius} ${radius} 0 1 1 ${start}Z`;
      return;
    }
    this.path += `${this.path ? 'L' : 'M'}${start}A${radius} ${radius} 0 ${Math.abs(to - from) > Math.PI ? 1 : 0} 1 ${end}`;
  }
  closePath(): void {
    if (this.path) this.path += 'Z';
  }

  private add(element: string): void {
    const { clip } = this.state;
    this.elements.push(clip === null ? element : `<g clip-path="url(#${clip})">${element}</g>`);
  }
  private opacity(): string {
    return this.state.globalAlpha < 1 ? ` opacity="${this.state.globalAlpha}"` : '';
  }
  fill(): void {
    if (this.path) this.add(`<path d="${this.path}" fill="${escaped(this.state.fillStyle)}"${this.opacity()}/>`);
  }
  stroke(): void {
    const { strokeStyle, lineWidth, dash, dashOffset, lineCap, lineJoin } = this.state;
    if (!this.path || !(lineWidth > 0)) return;
    const dashed = dash.length ? ` stroke-dasharray="${dash.join(' ')}" stroke-dashoffset="${dashOffset}"` : '';
    const ends = `${lineCap === 'butt' ? '' : ` stroke-linecap="${lineCap}"`}${lineJoin === 'miter' ? '' : ` stroke-linejoin="${lineJoin}"`}`;
    this.add(
      `<path d="${this.path}" fill="none" stroke="${escaped(strokeStyle)}" stroke-width="${round(lineWidth)}"${dashed}${ends}${this.opacity()}/>`,
    );
  }
  /** What is clipped stays clipped within what was clipped before: the shapes are nested. */
  clip(): void {
    const id = `clip${this.clips.length}`;
    const within = this.state.clip === null ? '' : ` clip-path="url(#${this.state.clip})"`;
    this.clips.push(`<clipPath id="${id}"${within}><path d="${this.path}"/></clipPath>`);
    this.state.clip = id;
  }
  fillRect(x: number, y: number, width: number, height: number): void {
    const path = this.path;
    this.path = '';
    this.rect(x, y, width, height);
    this.fill();
    this.path = path;
  }
  strokeRect(x: number, y: number, width: number, height: number): void {
    const path = this.path;
    this.path = '';
    this.rect(x, y, width, height);
    this.stroke();
    this.path = path;
  }
  clearRect(): void {
    // A new drawing starts empty.
  }

  measureText(text: string): TextMetrics {
    this.ruler.font = this.state.font;
    return this.ruler.measureText(text);
  }
  fillText(text: string, x: number, y: number): void {
    const { font, textAlign, textBaseline, fillStyle, matrix } = this.state;
    const [, style = '', size = '12', family = 'sans-serif'] = /^(.*?)([\d.]+)px(?:\/\S+)?\s+(.*)$/.exec(font) ?? [];
    const anchor = { center: 'middle', right: 'end', end: 'end' }[textAlign];
    const weight = /\b(bold|[1-9]00)\b/.exec(style)?.[1];
    const base = Number(size) * (BASELINES[textBaseline] ?? 0);
    const [a, b, c, d, e, f] = matrix;
    const turned = a === 1 && b === 0 && c === 0 && d === 1;
    const place = turned
      ? `x="${round(x + e)}" y="${round(y + f + base)}"`
      : `x="${round(x)}" y="${round(y + base)}" transform="matrix(${[a, b, c, d, e, f].map((v) => Number(v.toFixed(6))).join(' ')})"`;
    this.add(
      `<text ${place} font-family="${escaped(family)}" font-size="${size}"${weight ? ` font-weight="${weight}"` : ''}${anchor ? ` text-anchor="${anchor}"` : ''} fill="${escaped(fillStyle)}"${this.opacity()}>${escaped(text)}</text>`,
    );
  }
  strokeText(): void {
    // Outlines around letters are never asked for here.
  }

  /** All that was drawn, on a ground. */
  toSvg(ground: string): string {
    const { width, height } = this.canvas;
    const defs = this.clips.length ? `<defs>${this.clips.join('')}</defs>` : '';
    return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${defs}<rect width="${width}" height="${height}" fill="${escaped(ground)}"/>${this.elements.join('')}</svg>\n`;
  }
}
