<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { KINDS } from '$lib/seals';
	import { asTyped, Choice, faultAt, ProblemNote, QuantityField, withUnit, usualUnit } from '$lib/shared';
	import SealRow from './SealRow.svelte';

	let kind = $state<Schemas['SealKind']>('lip_seal');
	let side = $state<Schemas['SealSide']>('rod');
	let surface = $state('');
	let groove = $state('');
	let length = $state('');
	let unit = $state(usualUnit('length'));
	let found = $state.raw<Schemas['SealMatchOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	const complete = $derived(Boolean(surface.trim() && groove.trim() && length.trim()));

	$effect(() => {
		if (!complete) {
			found = null;
			problem = null;
			return;
		}
		const body: Schemas['HousingBody'] = {
			kind,
			side,
			surface: withUnit(surface, unit),
			groove: withUnit(groove, unit),
			length: withUnit(length, unit),
			tolerance: '0.15 mm'
		};
		return asTyped(
			() => ask(api.POST('/api/seals/match', { body })),
			(answer) => {
				found = answer.data;
				problem = answer.problem;
			}
		);
	});
</script>

<svelte:head><title>Seals by housing · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 p-4 pt-2">
	<h1 class="sr-only">Which seal fits this housing?</h1>
	<div class="grid items-start gap-4 lg:grid-cols-[27rem_1fr]">
		<section class="panel" aria-label="The housing" data-form>
			<label class="mb-2 block">
				<span class="block font-semibold">Kind</span>
				<select class="entry select w-full" bind:value={kind}>
					{#each KINDS as [key, name] (key)}<option value={key}>{name}</option>{/each}
				</select>
			</label>
			<Choice
				name="Runs on"
				options={[
					['rod', 'a rod or shaft'],
					['bore', 'a bore']
				]}
				bind:value={side}
			/>
			<QuantityField
				label={side === 'rod' ? 'Rod or shaft' : 'Bore'}
				dimension="length"
				bind:value={surface}
				bind:unit
				fault={faultAt(problem, 'surface')}
				focused
			/>
			<QuantityField
				label="Groove diameter"
				dimension="length"
				bind:value={groove}
				bind:unit
				fault={faultAt(problem, 'groove')}
				hint={side === 'rod' ? 'larger than the rod' : 'smaller than the bore'}
			/>
			<QuantityField
				label="Groove length"
				dimension="length"
				bind:value={length}
				bind:unit
				fault={faultAt(problem, 'length')}
				hint="along the axis"
			/>
			{#if problem && !['surface', 'groove', 'length'].some((field) => faultAt(problem, field))}
				<ProblemNote {problem} />
			{/if}
		</section>
		<div class="space-y-4">
			{#if found}
				<section aria-labelledby="fits">
					<h2 id="fits" class="text-2xl font-bold">Fits this housing</h2>
					<ul class="space-y-2">
						{#each found.fits as seal (seal.name + seal.source)}<SealRow {seal} />
						{:else}<li class="panel">No stock or standard seal fits exactly.</li>{/each}
					</ul>
				</section>
				{#each [['Nearest smaller', found.smaller] as const, ['Nearest larger', found.larger] as const] as [title, seals] (title)}
					{#if seals.length}
						<section aria-label={title}>
							<h2 class="text-2xl font-bold">{title}, and what would have to change</h2>
							<ul class="space-y-2">
								{#each seals as seal (seal.name + seal.source)}<SealRow {seal} />{/each}
							</ul>
						</section>
					{/if}
				{/each}
				<p class="faint text-sm">
					Housings of ISO 5597, ISO 7425 and ISO 6195 A on the rods and bores of ISO 3320, paired by rule, and
					the shop's own stock. Guidance: the maker's drawing wins.
				</p>
			{:else}
				<p class="panel faint">
					Measure the metal, not the old seal: rod or bore, groove diameter, groove length. What fits appears
					here.
				</p>
			{/if}
		</div>
	</div>
</main>
