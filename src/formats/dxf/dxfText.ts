/** Collects the pairs of code and value that a DXF file is made of, and gives every record a handle of its own. */
export class DxfText {
  private readonly lines: string[] = [];
  private next = 1;

  /** Pairs, one after the other: text as it is, numbers without an exponent. */
  put(...pairs: readonly (string | number)[]): void {
    for (let k = 0; k < pairs.length; k += 2) {
      const value = pairs[k + 1];
      this.lines.push(String(pairs[k]), typeof value === 'number' ? number(value) : value);
    }
  }

  /** A handle that no other record has: hexadecimal digits. */
  handle(): string {
    return (this.next++).toString(16).toUpperCase();
  }

  /** Takes over what another one collected. */
  append(other: DxfText): void {
    for (const line of other.lines) this.lines.push(line);
  }

  toString(): string {
    return `${this.lines.join('\n')}\n`;
  }
}

/** Six decimals of a mm and no exponent, which readers do not all know. */
function number(value: number): string {
  const text = Number.isInteger(value) ? String(value) : value.toFixed(6).replace(/\.?0+$/, '');
  return text === '-0' ? '0' : text;
}
