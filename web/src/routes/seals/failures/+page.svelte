<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { SignPicture } from '$lib/failures';
	import { MATERIALS } from '$lib/glands';
	import { faultAt, ProblemNote } from '$lib/shared';

	type Known = 'compound' | 'fluid' | 'temperature' | 'speed';
	const MOTIONS = ['static', 'reciprocating', 'rotary', 'rolling'] as const;
	const TOLD = 5;
	let kinds = $state.raw<Schemas['ElementOut'][]>([]);
	let media = $state.raw<string[]>([]);
	let lubricants = $state.raw<Schemas['ListedLubricantOut'][]>([]);
	let element = $state<Schemas['ElementKind']>('o_ring');
	let motion = $state('');
	let seen = $state<Schemas['Sign'][]>([]);
	let known = $state<Record<Known, string>>({ compound: '', fluid: '', temperature: '', speed: '' });
	let lubricant = $state('');
	let years = $state('');
	let found = $state.raw<Schemas['DiagnosisOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let all = $state(false);
	const kind = $derived(kinds.find((kind) => kind.key === element));
	const causes = $derived(all ? (found?.causes ?? []) : (found?.causes.slice(0, TOLD) ?? []));

	$effect(() => {
		void ask(api.GET('/api/failures/elements')).then((answer) => (kinds = answer.data ?? []));
		void ask(api.GET('/api/compounds/media')).then((answer) => (media = answer.data ?? []));
		void ask(api.GET('/api/lubricants')).then((answer) => (lubricants = answer.data ?? []));
	});
	$effect(() => {
		const body = {
			element,
			signs: $state.snapshot(seen),
			motion: (motion || null) as Schemas['StationMotion'] | null,
			compound: known.compound || null,
			fluid: known.fluid || null,
			lubricant: (lubricant || null) as Schemas['Lubricant'] | null,
			temperature: known.temperature || null,
			speed: known.speed || null,
			years: years.trim() ? Number(years.replace(',', '.')) : null
		};
		let stale = false;
		const wait = setTimeout(async () => {
			const answer = await ask(api.POST('/api/failures/diagnose', { body }));
			if (stale) return;
			found = answer.data ?? null;
			problem = answer.problem;
		}, 150);
		return () => {
			stale = true;
			clearTimeout(wait);
		};
	});

	function toggle(sign: Schemas['Sign']) {
		if (sign === 'none') seen = [];
		else seen = seen.includes(sign) ? seen.filter((other) => other !== sign) : [...seen, sign];
	}
	function another() {
		const can = kinds.find((kind) => kind.key === element)?.signs.map((sign) => sign.key) ?? [];
		seen = seen.filter((sign) => can.includes(sign));
	}
</script>

<svelte:head><title>Why it failed · Iron Kettle</title></svelte:head>

<main class="mx-auto grid w-full max-w-7xl flex-1 gap-4 p-4 pt-2 lg:grid-cols-[3fr_2fr]">
	<h1 class="sr-only">Why it failed</h1>
	<section class="panel" aria-labelledby="seen">
		<div class="grid gap-3 sm:grid-cols-2">
			<label class="font-semibold"
				>What came off
				<select class="entry select mt-1 w-full" bind:value={element} onchange={another}>
					{#each kinds as kind (kind.key)}<option value={kind.key}>{kind.name}</option>{/each}
				</select></label
			>
			<label class="font-semibold"
				>Motion
				<select class="entry select mt-1 w-full" bind:value={motion}>
					<option value="">not known</option>
					{#each MOTIONS as motion (motion)}<option value={motion}>{motion}</option>{/each}
				</select></label
			>
		</div>
		<h2 id="seen" class="mt-3 text-xl font-bold">What can be seen on it?</h2>
		<div
			class="mt-1 grid grid-cols-[repeat(auto-fill,minmax(8.5rem,1fr))] gap-2"
			role="group"
			aria-labelledby="seen"
		>
			{#each kind?.signs ?? [] as sign (sign.key)}
				<button
					class="btn h-auto min-h-11 flex-col py-1 leading-tight aria-pressed:btn-primary"
					aria-pressed={sign.key === 'none' ? seen.length === 0 : seen.includes(sign.key)}
					onclick={() => toggle(sign.key)}
				>
					<SignPicture sign={sign.key} size={44} /><span>{sign.says}</span>
				</button>
			{/each}
		</div>
		<h2 class="mt-3 text-xl font-bold">What is known</h2>
		<div class="mt-1 grid gap-3 sm:grid-cols-3">
			<label class="font-semibold"
				>Compound
				<select class="entry select mt-1 w-full" bind:value={known.compound}>
					<option value="">not known</option>
					{#each MATERIALS as material (material)}<option value={material}>{material}</option>{/each}
				</select></label
			>
			<label class="font-semibold"
				>Fluid
				<select class="entry select mt-1 w-full" bind:value={known.fluid}>
					<option value="">not known</option>
					{#each media as medium (medium)}<option value={medium}>{medium.replaceAll('_', ' ')}</option>{/each}
				</select></label
			>
			<label class="font-semibold"
				>Lubricant on it
				<select class="entry select mt-1 w-full" bind:value={lubricant}>
					<option value="">not known</option>
					{#each lubricants as lubricant (lubricant.key)}<option value={lubricant.key}
							>{lubricant.name}</option
						>{/each}
				</select></label
			>
			{#each [['temperature', 'Temperature', '95 °C'], ['speed', 'Speed', '0.3 m/s']] as [key, name, hint] (key)}
				<label class="font-semibold"
					>{name}
					<input class="entry input mt-1 w-full" placeholder={hint} bind:value={known[key as Known]} />
					<span class="block min-h-5 text-sm font-normal text-error">{faultAt(problem, key ?? '') ?? ''}</span
					></label
				>
			{/each}
			<label class="font-semibold"
				>In for, years
				<input class="entry input mt-1 w-full" inputmode="decimal" placeholder="4" bind:value={years} />
				<span class="block min-h-5 text-sm font-normal text-error">{faultAt(problem, 'years') ?? ''}</span
				></label
			>
		</div>
	</section>
	<section class="panel self-start" aria-labelledby="causes" aria-live="polite">
		<h2 id="causes" class="text-2xl font-bold">Likely causes</h2>
		{#if problem && !problem.errors?.length}<ProblemNote {problem} />{/if}
		<ol>
			{#each causes as cause (cause.key)}
				<li class="border-t border-base-300 py-2">
					<p class="flex items-baseline justify-between gap-3 text-lg font-bold">
						<span>{cause.name}</span><span>{Math.round(cause.share * 100)} %</span>
					</p>
					<div class="h-2 rounded bg-base-300" aria-hidden="true">
						<div class="h-2 rounded bg-primary" style:width="{cause.share * 100}%"></div>
					</div>
					{#each cause.for as text (text)}<p class="text-success">for: {text}</p>{/each}
					{#each cause.against as text (text)}<p class="text-warning">against: {text}</p>{/each}
					<ul class="faint ml-4 list-disc">
						{#each cause.corrections as correction (correction.key)}<li>{correction.text}</li>{/each}
					</ul>
				</li>
			{/each}
		</ol>
		{#if !all && found && found.causes.length > TOLD}
			<button class="btn" onclick={() => (all = true)}>{found.causes.length - TOLD} more</button>
		{/if}
		{#if found}<p class="faint mt-2 text-sm">{found.basis}</p>{/if}
	</section>
</main>
