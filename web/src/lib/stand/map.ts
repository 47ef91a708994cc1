import type { Schemas } from '$lib/api';

type Channel = Schemas['StandChannel'];

/** A channel as it stands in the fields of the screen. */
export interface MapRow {
	key: string;
	name: string;
	reads: Channel['reads'];
	register_at: string;
	format: NonNullable<Channel['format']>;
	swapped: boolean;
	scale: string;
	offset: string;
	unit: string;
	low: string;
	high: string;
}

const text = (value: number | null | undefined) =>
	value === null || value === undefined ? '' : String(value);

type Given = Pick<Channel, 'key' | 'name' | 'reads' | 'register_at'> & Partial<Channel>;

export function rowOf(channel: Given): MapRow {
	return {
		key: channel.key,
		name: channel.name,
		reads: channel.reads,
		register_at: String(channel.register_at),
		format: channel.format ?? 'float32',
		swapped: channel.swapped ?? false,
		scale: text(channel.scale ?? 1),
		offset: text(channel.offset ?? 0),
		unit: channel.unit ?? '',
		low: text(channel.low),
		high: text(channel.high)
	};
}

/** What is sent: a number where one was typed, else the text itself, which the server names as it came. */
function figure(typed: string): number | string | null {
	const plain = typed.trim().replace(',', '.').replace('−', '-');
	if (plain === '') return null;
	const value = Number(plain);
	return Number.isFinite(value) ? value : typed;
}

/** How the stand numbers and keeps its readings, as it stands in the fields of the screen. */
export interface NumberedRow {
	every_s: string;
	rows: string;
	first: string;
}

export function numberedRow(numbered: Schemas['Numbered'] | null | undefined): NumberedRow {
	return {
		every_s: text(numbered?.every_s),
		rows: text(numbered?.rows ?? 0),
		first: text(numbered?.first ?? 0)
	};
}

/** Sent where a channel tells the number of the reading. */
export function numberedOf(row: NumberedRow, rows: MapRow[]): Schemas['Numbered'] | null {
	if (!rows.some((row) => row.reads === 'reading')) return null;
	return {
		every_s: figure(row.every_s),
		rows: figure(row.rows) ?? 0,
		first: figure(row.first) ?? 0
	} as Schemas['Numbered'];
}

export function channelOf(row: MapRow): Channel {
	return {
		...row,
		register_at: figure(row.register_at),
		scale: figure(row.scale),
		offset: figure(row.offset),
		low: figure(row.low),
		high: figure(row.high)
	} as Channel;
}
