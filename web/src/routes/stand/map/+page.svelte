<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { session } from '$lib/session';
	import { ProblemNote } from '$lib/shared';
	import { channelOf, numberedOf, numberedRow, rowOf, type MapRow } from '$lib/stand';

	type Figure = 'register_at' | 'scale' | 'offset' | 'low' | 'high';
	let map = $state.raw<Schemas['StandMapOut'] | null>(null);
	let rows = $state<MapRow[]>([]);
	let rate = $state('5');
	let unitId = $state('1');
	let numbered = $state(numberedRow(null));
	let problem = $state.raw<Problem | null>(null);
	let done = $state('');
	const tellsNumber = $derived(rows.some((row) => row.reads === 'reading'));
	const mayChange = $derived(session.may('change_stand'));

	$effect(() => {
		if (session.person) void load();
	});
	async function load() {
		const answer = await ask(api.GET('/api/stand/map'));
		problem = answer.problem;
		if (!answer.data) return;
		map = answer.data;
		rows = answer.data.map.channels.map(rowOf);
		rate = String(answer.data.map.rate_hz ?? 5);
		unitId = String(answer.data.map.unit_id ?? 1);
		numbered = numberedRow(answer.data.map.numbered);
	}
	function unitsOf(reads: string) {
		return map?.reads.find((read) => read.key === reads)?.units ?? [''];
	}
	function add() {
		const last = rows.at(-1);
		rows.push({
			...(last ??
				rowOf({ key: 'pressure', name: 'Pressure', reads: 'pressure', register_at: 0, unit: 'bar' })),
			key: `channel_${rows.length + 1}`,
			name: '',
			register_at: String(Number(last?.register_at ?? -2) + 2)
		});
	}
	async function save() {
		done = '';
		const body = {
			unit_id: Number(unitId),
			rate_hz: Number(rate.replace(',', '.')),
			channels: rows.map(channelOf),
			numbered: numberedOf(numbered, rows)
		} as Schemas['StandMap'];
		const answer = await ask(api.PUT('/api/stand/map', { body }));
		problem = answer.problem;
		if (!answer.data) return;
		await load();
		done = 'The map is saved and used from the next reading.';
	}
	async function shipped() {
		const answer = await ask(api.DELETE('/api/stand/map'));
		problem = answer.problem;
		if (!answer.data) return;
		await load();
		done = 'The shipped map is in use.';
	}
</script>

{#snippet figure(row: MapRow, label: string, key: Figure)}
	<td><input class="entry input w-18 px-2" aria-label={label} inputmode="decimal" bind:value={row[key]} /></td
	>
{/snippet}

<svelte:head><title>Registers of the stand · Iron Kettle</title></svelte:head>
<main class="mx-auto w-full max-w-7xl space-y-3 p-4">
	<section class="panel space-y-3">
		<h1 class="text-2xl font-extrabold">Registers of the stand</h1>
		<p class="faint max-w-4xl">
			Where the stand keeps what it reads (Modbus TCP, holding registers). What is shown is the number in the
			register · scale + offset, in the unit. The first pressure is the one a hold is judged by. A reading
			outside the range of the channel is ignored.
			{map?.shipped ? 'This is the shipped map.' : map ? 'This is the shop’s own map.' : ''}
			{mayChange ? '' : 'Only the lead can change it.'}
		</p>
		{#if map}
			<form
				class="space-y-3"
				onsubmit={(event) => {
					event.preventDefault();
					void save();
				}}
			>
				<!-- On a narrow screen it is moved sideways, by keys too. -->
				<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
				<div class="overflow-x-auto" role="region" aria-label="Channels, all columns" tabindex="0">
					<fieldset disabled={!mayChange} class="min-w-0 space-y-3">
						<div class="flex flex-wrap gap-4">
							<label class="font-semibold"
								>Readings a second <input
									class="entry input w-24"
									inputmode="decimal"
									bind:value={rate}
								/></label
							>
							<label class="font-semibold"
								>Unit number <input class="entry input w-24" inputmode="numeric" bind:value={unitId} /></label
							>
						</div>
						{#if tellsNumber}
							<div class="flex flex-wrap gap-4">
								<label class="font-semibold"
									>Takes a reading every <input
										class="entry input w-24"
										inputmode="decimal"
										bind:value={numbered.every_s}
									/> s</label
								>
								<label class="font-semibold"
									>keeps the last <input
										class="entry input w-24"
										inputmode="numeric"
										bind:value={numbered.rows}
									/> readings</label
								>
								<label class="font-semibold"
									>from register <input
										class="entry input w-24"
										inputmode="numeric"
										bind:value={numbered.first}
									/> on</label
								>
							</div>
						{/if}
						<table class="w-full border-separate border-spacing-1" aria-label="Channels">
							<thead class="text-left text-sm">
								<tr>
									{#each ['Name', 'Reads', 'Register', 'Format', 'Low word first', 'Scale', 'Offset', 'Unit', 'From', 'To', 'No more'] as head (head)}
										<th scope="col">{head}</th>
									{/each}
								</tr>
							</thead>
							<tbody>
								{#each rows as row, index (row.key)}
									<tr>
										<td><input class="entry input w-50 px-2" aria-label="Name" bind:value={row.name} /></td>
										<td>
											<select
												class="entry select w-48 truncate pl-2"
												aria-label="Reads"
												bind:value={row.reads}
												onchange={() => (row.unit = unitsOf(row.reads)[0] ?? '')}
											>
												{#each map.reads as read (read.key)}<option value={read.key}>{read.says}</option
													>{/each}
											</select>
										</td>
										{@render figure(row, 'Register', 'register_at')}
										<td>
											<select class="entry select w-26 pl-2" aria-label="Format" bind:value={row.format}>
												{#each map.formats as format (format)}<option>{format}</option>{/each}
											</select>
										</td>
										<td class="text-center"
											><input
												type="checkbox"
												class="checkbox"
												aria-label="Low word first"
												bind:checked={row.swapped}
											/></td
										>
										{@render figure(row, 'Scale', 'scale')}
										{@render figure(row, 'Offset', 'offset')}
										<td>
											<select class="entry select w-24 pl-2" aria-label="Unit" bind:value={row.unit}>
												{#each unitsOf(row.reads) as unit (unit)}<option value={unit}>{unit || 'none'}</option
													>{/each}
											</select>
										</td>
										{@render figure(row, 'From', 'low')}
										{@render figure(row, 'To', 'high')}
										<td
											><button
												type="button"
												class="btn px-2 whitespace-nowrap"
												onclick={() => rows.splice(index, 1)}>Remove</button
											></td
										>
									</tr>
								{/each}
							</tbody>
						</table>

						{#if mayChange}
							<div class="flex flex-wrap gap-2">
								<button class="btn btn-primary min-h-14 flex-1">Save map</button>
								<button type="button" class="btn min-h-14" onclick={add}>Another channel</button>
								<button type="button" class="btn min-h-14" onclick={() => void shipped()}
									>Back to the shipped map</button
								>
							</div>
						{/if}
					</fieldset>
				</div>
			</form>
		{/if}
		<p role="status" class="font-semibold text-accent">{done}</p>
		<ProblemNote {problem} places />
	</section>
</main>
