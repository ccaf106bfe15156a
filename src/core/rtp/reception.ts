/** RFC 3550 §A.1. */
const MAX_DROPOUT = 3000;
const MAX_MISORDER = 100;
const SEQUENCE_MODULUS = 0x10000;
/** RFC 3550 §6.4.1: cumulative number of packets lost is a signed 24-bit field. */
const MAX_LOST = 0x7fffff;
const MIN_LOST = -0x800000;

export interface ReceptionCounts {
  readonly baseSeq: number;
  /** Highest sequence number received, extended by the count of wraps. */
  readonly extendedMax: number;
  readonly cycles: number;
  readonly expected: number;
  readonly received: number;
  /** expected − received; duplicates hide losses in it, so show `neverArrived`. */
  readonly cumulativeLost: number;
  /** Share lost in 1/256. */
  readonly fractionLost: number;
  readonly rejected: number;
  readonly restarts: number;
  readonly duplicates: number;
  /** New, but below the highest received. */
  readonly late: number;
  /** Distinct sequence numbers from the base on that are missing. */
  readonly neverArrived: number;
}

/** How a packet stands in its source: in order, new but behind the highest, come before, or not accepted. */
export type PacketPlace = 'newest' | 'behind' | 'duplicate' | 'refused';

/** Counts over everything that was received, across restarts of the source. */
export interface ReceptionTotals {
  readonly expected: number;
  readonly received: number;
  readonly duplicates: number;
  readonly late: number;
  readonly neverArrived: number;
  /** Runs of packets that never arrived: a burst of twelve is one. */
  readonly lossEvents: number;
}

export interface IntervalReport {
  readonly expectedInterval: number;
  readonly receivedInterval: number;
  readonly fractionLost: number;
  readonly cumulativeLost: number;
  readonly extendedMax: number;
}

const lostFraction = (expected: number, received: number): number =>
  expected > 0 && expected > received ? Math.floor((256 * (expected - received)) / expected) : 0;

/** In which round a number was seen; above 0 also for packets older than a base near 0. */
const markOf = (extended: number): number => (Math.floor(extended / SEQUENCE_MODULUS) + 2) & 0xffff;

/**
 * Counts one RTP source as RFC 3550 §A.1 (sequence validation) and §A.3 (loss) do, and beside that what those hide:
 * duplicates, late packets and distinct packets that never arrived.
 * @param minSequential packets in a row before a source counts; 0 for a stream that SETUP announced, else 2
 */
export class ReceptionCounter {
  #started = false;
  #probation: number;
  #baseSeq = 0;
  #maxSeq = 0;
  #cycles = 0;
  #badSeq = -1;
  #received = 0;
  #rejected = 0;
  #restarts = 0;
  #duplicates = 0;
  #late = 0;
  #distinctFromBase = 0;
  #priorExpected = 0;
  #priorReceived = 0;
  /** Of sources that ended when the stream began anew: what is lost to §A.1 is not lost to the person. */
  #before: ReceptionTotals = { expected: 0, received: 0, duplicates: 0, late: 0, neverArrived: 0, lossEvents: 0 };
  /** For each 16-bit number the cycle in which it was last seen, from 1; tells a duplicate from a late packet. */
  readonly #seen = new Uint16Array(SEQUENCE_MODULUS);

  constructor(private readonly minSequential: 0 | 2 = 0) {
    this.#probation = minSequential;
  }

  /** Takes one sequence number and says how it stands in the source. */
  push(seq: number): PacketPlace {
    if (!this.#started) {
      this.#started = true;
      if (this.minSequential === 0) return this.#restart(seq);
      this.#maxSeq = (seq - 1 + SEQUENCE_MODULUS) % SEQUENCE_MODULUS;
    }
    if (this.#probation > 0) {
      this.#probation = seq === (this.#maxSeq + 1) % SEQUENCE_MODULUS ? this.#probation - 1 : this.minSequential - 1;
      this.#maxSeq = seq;
      if (this.#probation === 0) return this.#restart(seq);
      this.#rejected += 1;
      return 'refused';
    }
    const ahead = (seq - this.#maxSeq + SEQUENCE_MODULUS) % SEQUENCE_MODULUS;
    if (ahead < MAX_DROPOUT) {
      if (seq < this.#maxSeq) this.#cycles += 1;
      this.#maxSeq = seq;
      const isNew = this.#count(this.#cycles * SEQUENCE_MODULUS + seq, ahead === 0);
      return isNew ? 'newest' : 'duplicate';
    }
    if (ahead <= SEQUENCE_MODULUS - MAX_MISORDER) {
      // "Two sequential packets -- assume that the other side restarted without telling us" (§A.1)
      if (seq === this.#badSeq) {
        this.#restarts += 1;
        return this.#restart(seq);
      }
      this.#badSeq = (seq + 1) % SEQUENCE_MODULUS;
      this.#rejected += 1;
      return 'refused';
    }
    const isNew = this.#count((this.#cycles - (seq > this.#maxSeq ? 1 : 0)) * SEQUENCE_MODULUS + seq, true);
    return isNew ? 'behind' : 'duplicate';
  }

  get counts(): ReceptionCounts {
    const extendedMax = this.#cycles * SEQUENCE_MODULUS + this.#maxSeq;
    const expected = this.#received === 0 ? 0 : extendedMax - this.#baseSeq + 1;
    const lost = expected - this.#received;
    return {
      baseSeq: this.#baseSeq,
      extendedMax,
      cycles: this.#cycles,
      expected,
      received: this.#received,
      cumulativeLost: Math.max(MIN_LOST, Math.min(MAX_LOST, lost)),
      fractionLost: lostFraction(expected, this.#received),
      rejected: this.#rejected,
      restarts: this.#restarts,
      duplicates: this.#duplicates,
      late: this.#late,
      neverArrived: expected - this.#distinctFromBase,
    };
  }

  get totals(): ReceptionTotals {
    const { expected, received, duplicates, late, neverArrived } = this.counts;
    const before = this.#before;
    return {
      expected: before.expected + expected,
      received: before.received + received,
      duplicates: before.duplicates + duplicates,
      late: before.late + late,
      neverArrived: before.neverArrived + neverArrived,
      lossEvents: before.lossEvents + this.#lossEvents(neverArrived),
    };
  }

  /** Of numbers that came round since, it is not told where they were missing: they count as one run more. */
  #lossEvents(neverArrived: number): number {
    if (neverArrived === 0) return 0;
    const max = this.#cycles * SEQUENCE_MODULUS + this.#maxSeq;
    const from = Math.max(this.#baseSeq, max - SEQUENCE_MODULUS + 1);
    let [runs, missing, isMissing] = [0, 0, false];
    for (let extended = from; extended <= max; extended++) {
      const isHere = this.#seen[extended % SEQUENCE_MODULUS] === markOf(extended);
      if (!isHere) missing += 1;
      if (!isHere && !isMissing) runs += 1;
      isMissing = !isHere;
    }
    return runs + (missing < neverArrived ? 1 : 0);
  }

  /** The same stream goes on under another SSRC: its numbers begin anew. Source: RFC 3550 §8.2. */
  sourceChanged(seq: number): void {
    this.#started = true;
    this.#probation = 0;
    this.#restart(seq);
  }

  /** Ends a report interval and tells its differences. Source: RFC 3550 §A.3. */
  report(): IntervalReport {
    const { expected, received, cumulativeLost, extendedMax } = this.counts;
    const expectedInterval = expected - this.#priorExpected;
    const receivedInterval = received - this.#priorReceived;
    this.#priorExpected = expected;
    this.#priorReceived = received;
    const fractionLost = lostFraction(expectedInterval, receivedInterval);
    return { expectedInterval, receivedInterval, fractionLost, cumulativeLost, extendedMax };
  }

  /** init_seq() of §A.1; all counters but rejections and restarts start anew. */
  #restart(seq: number): 'newest' {
    if (this.#received > 0) this.#before = this.totals;
    this.#baseSeq = seq;
    this.#maxSeq = seq;
    this.#cycles = 0;
    this.#badSeq = -1;
    this.#received = 0;
    this.#duplicates = 0;
    this.#late = 0;
    this.#distinctFromBase = 0;
    this.#priorExpected = 0;
    this.#priorReceived = 0;
    this.#seen.fill(0);
    this.#count(seq, false);
    return 'newest';
  }

  /** @returns whether it had not come before */
  #count(extended: number, notNewest: boolean): boolean {
    this.#received += 1;
    const slot = ((extended % SEQUENCE_MODULUS) + SEQUENCE_MODULUS) % SEQUENCE_MODULUS;
    const mark = markOf(extended);
    if (this.#seen[slot] === mark) {
      this.#duplicates += 1;
      return false;
    }
    this.#seen[slot] = mark;
    if (notNewest) this.#late += 1;
    if (extended >= this.#baseSeq) this.#distinctFromBase += 1;
    return true;
  }
}
