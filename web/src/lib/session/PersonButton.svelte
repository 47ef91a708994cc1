<script lang="ts">
	import LogOut from '@lucide/svelte/icons/log-out';
	import UserRound from '@lucide/svelte/icons/user-round';
	import { session } from './session.svelte';
	import SignIn from './SignIn.svelte';

	let dialog = $state<HTMLDialogElement>();

	$effect(() => {
		if (session.asking) dialog?.showModal();
		else dialog?.close();
	});
</script>

<button
	class={['btn px-3', session.person ? 'btn-ghost' : 'btn-primary']}
	onclick={() => (session.asking = true)}
>
	<UserRound size={20} aria-hidden="true" />
	{#if session.person}<span class="sr-only">Signed in: </span>{session.person.name}{:else}Sign in{/if}
</button>

<dialog
	class="modal items-start overflow-y-auto"
	bind:this={dialog}
	aria-label="Sign in"
	onclose={() => (session.asking = false)}
>
	<div class="modal-box mt-4 max-h-none max-w-3xl">
		{#if session.asking}
			{#if session.known && !session.person}
				<p class="mb-2 font-semibold text-warning">You are signed out. Your open work is kept.</p>
			{/if}
			<SignIn />
			<div class="modal-action">
				{#if session.person}
					<button class="btn" onclick={() => void session.signOut()}
						><LogOut size={20} aria-hidden="true" />Sign {session.person.name} out</button
					>
				{/if}
				<button class="btn" onclick={() => (session.asking = false)}>Close</button>
			</div>
		{/if}
	</div>
</dialog>
