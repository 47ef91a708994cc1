<script lang="ts">
	import type { Schemas } from '$lib/api';

	interface Props {
		reading: Schemas['RingMatchBody'] | null;
		groove: Schemas['GrooveBody'] | null;
	}
	let { reading, groove }: Props = $props();

	const NAMES: [keyof Schemas['RingMatchBody'], string][] = [
		['condition', 'the ring is'],
		['inside_diameter', 'inside diameter'],
		['outside_diameter', 'outside diameter'],
		['cut_length', 'length when cut'],
		['section', 'section'],
		['section_crossed', 'crossed'],
		['uncertainty', 'good to ±']
	];
	const GROOVE: [keyof Schemas['GrooveBody'], string][] = [
		['seat', 'seat'],
		['motion', 'motion'],
		['bore', 'bore'],
		['rod', 'rod'],
		['groove_diameter', 'groove diameter'],
		['groove_width', 'groove width'],
		['diametral_clearance', 'clearance on the diameter'],
		['pressure', 'pressure'],
		['wall', 'wall'],
		['backup_rings_fitted', 'backup rings in it']
	];
	const MOTION: Record<string, string> = {
		static: 'still',
		reciprocating: 'reciprocating',
		rotary: 'turning'
	};
	const facts = <T,>(names: [keyof T, string][], of: T | null) =>
		of
			? names
					.filter(([key]) => of[key] !== null && of[key] !== undefined)
					.map(([key, name]) => [name, MOTION[String(of[key])] ?? String(of[key])] as const)
			: [];
</script>

{#snippet list(title: string, rows: (readonly [string, string])[])}
	{#if rows.length}
		<div>
			<h3 class="text-xl font-bold">{title}</h3>
			<dl class="grid grid-cols-[auto_1fr] gap-x-4">
				{#each rows as [name, value] (name)}
					<dt class="faint">{name}</dt>
					<dd class="font-semibold">{value}</dd>
				{/each}
			</dl>
		</div>
	{/if}
{/snippet}

<div class="flex flex-wrap gap-x-12 gap-y-2">
	{@render list('The ring', facts(NAMES, reading))}
	{@render list('The groove', facts(GROOVE, groove))}
</div>
