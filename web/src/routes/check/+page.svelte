<script lang="ts">
	import { page } from '$app/state';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { moment, ProblemNote } from '$lib/shared';

	let found = $state.raw<Schemas['CertificateCheckOut'] | null>(null);
	let problem = $state.raw<Problem | null>(null);
	const job = $derived(Number(page.url.searchParams.get('job') ?? '0'));
	const record = $derived(page.url.searchParams.get('record') ?? '');
	const asked = $derived(Boolean(job && record));

	$effect(() => {
		if (!asked) return;
		const query = { params: { path: { number: job }, query: { record } } };
		void ask(api.GET('/api/certificates/{number}', query)).then((answer) => {
			found = answer.data;
			problem = answer.problem;
		});
	});

	const COLOURS = { stands: 'border-l-success', reopened: 'border-l-warning', unknown: 'border-l-error' };
</script>

<svelte:head><title>Check a certificate · Iron Kettle</title></svelte:head>

<main class="mx-auto w-full max-w-2xl flex-1 p-4">
	<h1 class="text-4xl font-extrabold">Check a certificate</h1>
	<p class="mb-3">
		Each certificate carries its job number and, at the foot of every page, the beginning of its record hash.
		Scan its code, or enter both.
	</p>
	<form class="panel mb-3 grid items-end gap-2 sm:grid-cols-[8rem_1fr_auto]" action="/check">
		<label class="block">
			<span class="block font-semibold">Job number</span>
			<input class="entry input w-full" name="job" inputmode="numeric" value={job || ''} required />
		</label>
		<label class="block">
			<span class="block font-semibold">Record</span>
			<input class="entry input w-full" name="record" value={record} minlength="16" maxlength="64" required />
		</label>
		<button class="btn btn-primary">Check</button>
	</form>
	{#if problem}<ProblemNote {problem} />{/if}
	{#if found}
		<section class={['panel border-l-4', COLOURS[found.state]]} aria-live="polite">
			<h2 class="text-2xl font-bold">Job {job}</h2>
			<p class="text-lg font-semibold">{found.words}</p>
			{#if found.signed_by && found.signed_at}
				<p>Signed by {found.signed_by}, {moment(found.signed_at)}</p>
			{/if}
		</section>
	{/if}
</main>
