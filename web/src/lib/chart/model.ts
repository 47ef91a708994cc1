/** One figure over another. */
export interface Series {
	/** Points in their order along the axis; null where nothing was read. */
	points: [number, number | null][];
	/** Whether they are joined. */
	line: boolean;
	/** Whether each is marked: with a ring, filled, or not at all; many are never. */
	mark: 'ring' | 'dot' | 'none';
	/** A colour of the theme, as the name of its variable. */
	colour: string;
}

export interface Axis {
	unit: string;
	digits: number;
	/** How a value is written, where it is no number with a unit. */
	words?: (value: number) => string;
}

/** From where to where a scale goes, so that every point and limit is seen with some room. */
export function reach(values: number[], room = 0.12): [number, number] {
	if (!values.length) return [0, 1];
	const low = Math.min(...values);
	const high = Math.max(...values);
	const more = (high - low || Math.abs(high) || 1) * room;
	return [low - more, high + more];
}

/** What stands at a tick; `apart`: how far the ticks lie from each other, so that no two read alike. */
export function tick(axis: Axis, value: number, apart = 1): string {
	if (axis.words) return axis.words(value);
	const digits = Math.max(axis.digits, Math.ceil(-Math.log10(apart) - 1e-9));
	const text = value.toFixed(digits).replace(/^-(0(\.0*)?)$/, '$1');
	return axis.unit ? `${text} ${axis.unit}` : text;
}

/** The columns that are drawn: every place along the axis once, with what each series has there. */
export function columns(series: Series[]): [number[], ...(number | null)[][]] {
	const along = [...new Set(series.flatMap((line) => line.points.map(([x]) => x)))].sort((a, b) => a - b);
	return [
		along,
		...series.map((line) => {
			const at = new Map(line.points);
			return along.map((x) => at.get(x) ?? null);
		})
	];
}
