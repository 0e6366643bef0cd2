/**
 * Numbers that cost much to work out, kept by what they follow from: the same is asked for again and again where one thing is changed at
 * a time and most of it stays. It holds so many, and begins anew when it is full.
 */
export class Remembered {
  private readonly known = new Map<string, number>();

  constructor(private readonly most: number) {}

  /** @param of all that the number follows from */
  tell(of: string, work: () => number): number {
    const known = this.known.get(of);
    if (known !== undefined) return known;
    const told = work();
    if (this.known.size >= this.most) this.known.clear();
    this.known.set(of, told);
    return told;
  }
}
