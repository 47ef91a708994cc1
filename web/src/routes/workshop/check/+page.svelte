<script lang="ts">
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { SheetPicture } from '$lib/drawing';
	import { asTyped, keep, ProblemNote, recall } from '$lib/shared';
	import SheetFaults from './SheetFaults.svelte';

	const KEY = 'kettle-sheet-check';
	let text = $state(recall(KEY, { text: '' }).text);
	let checked = $state.raw<Schemas['SheetCheckOut'] | null>(null);
	let drawn = $state.raw<Schemas['PictureOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	let selected = $state<string | null>(null);
	let turned = $state(false);
	let view = $state<string | null>(null);
	let answers = $state<Record<string, string>>({});

	async function look(body: Schemas['PictureBody']) {
		const check = await ask(api.POST('/api/sheets/check', { body: { text: body.text } }));
		const sound = check.data?.faults.length === 0;
		const picture = sound ? await ask(api.POST('/api/sheets/picture', { body })) : null;
		return { check, picture };
	}

	$effect(() => {
		keep(KEY, { text });
		if (!text.trim()) {
			checked = drawn = problem = null;
			return;
		}
		const body = { text, answers: { ...answers }, view };
		return asTyped(
			() => look(body),
			({ check, picture }) => {
				checked = check.data;
				problem = check.problem ?? picture?.problem ?? null;
				drawn = (picture?.data ?? null) as Schemas['PictureOut'] | null;
			},
			400
		);
	});

	async function take(event: Event & { currentTarget: HTMLInputElement }) {
		const file = event.currentTarget.files?.[0];
		if (!file) return;
		text = await file.text();
		answers = {};
		view = selected = null;
	}
	const station = $derived(drawn?.picture?.stations.find((station) => station.key === selected) ?? null);
	const elements = $derived(drawn?.picture?.elements.filter((element) => element.station === selected) ?? []);
</script>

<svelte:head><title>Check a sheet · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-7xl flex-1 p-4 pt-2">
	<h1 class="sr-only">Check a sheet</h1>
	<div class="grid items-start gap-4 lg:grid-cols-[2fr_3fr]">
		<section class="panel" aria-label="Sheet">
			<label class="block font-semibold" for="sheet-file">A build sheet (YAML or JSON)</label>
			<input
				id="sheet-file"
				type="file"
				accept=".yaml,.yml,.json"
				class="entry file-input mb-2 w-full"
				onchange={take}
			/>
			<label class="block font-semibold" for="sheet-text">a file or its text; nothing is stored</label>
			<textarea
				id="sheet-text"
				class="entry textarea h-[46vh] w-full font-mono text-sm whitespace-pre"
				spellcheck="false"
				bind:value={text}></textarea>
		</section>
		<div class="space-y-3">
			<ProblemNote {problem} />
			{#if checked}<SheetFaults {checked} />{/if}
			{#if drawn?.picture}
				<section class="panel" aria-label="Drawing">
					<div class="mb-2 flex flex-wrap items-center gap-2">
						{#each drawn.views as drawing (drawing.key)}
							<button
								class="btn aria-pressed:btn-primary"
								aria-pressed={drawn.picture.view === drawing.key}
								onclick={() => {
									view = drawing.key;
									selected = null;
								}}>{drawing.name}</button
							>
						{/each}
						{#each drawn.questions as question (question.key)}
							<label class="font-semibold"
								>{question.ask}
								<select
									class="entry select"
									value={question.answer}
									onchange={(event) => (answers[question.key] = event.currentTarget.value)}
								>
									{#each question.choices as choice (choice.key)}<option value={choice.key}
											>{choice.says}</option
										>{/each}
								</select></label
							>
						{/each}
					</div>
					<SheetPicture
						picture={drawn.picture}
						name={drawn.name}
						{selected}
						{turned}
						onSelect={(key) => (selected = key)}
					/>
					{#if station}
						<div class="mt-2 flex flex-wrap items-center gap-2">
							<h2 class="flex-1 text-xl font-bold">{station.name}</h2>
							<button
								class="btn aria-pressed:btn-primary"
								aria-pressed={turned}
								onclick={() => (turned = !turned)}>Wrong way round</button
							>
							<button class="btn" onclick={() => (selected = null)}>Whole unit</button>
						</div>
						<ul>
							{#each elements as element, index (index)}
								<li><strong>{element.name}</strong>: {element.instruction}</li>
							{/each}
						</ul>
					{:else}
						<p class="faint">Tap a number to see its place large, with what the caliper will meet.</p>
					{/if}
				</section>
			{:else if !text.trim()}
				<p class="panel faint">
					Enter a sheet; it is checked as you type: names, figures, the order of work, and whether its seals
					part its pressure spaces.
				</p>
			{/if}
		</div>
	</div>
</main>
