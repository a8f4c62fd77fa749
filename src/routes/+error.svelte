<script lang="ts">
	import { page } from '$app/state';
</script>

<main class="grid h-screen place-items-center">
	<div class="text-center">
		<h1 class="text-[26px]" style:font-family="var(--font-serif)">
			{page.error?.message ?? 'Something went wrong'}
		</h1>
		<p class="mt-3"><a class="text-patina-deep underline" href="/">All projects</a></p>
	</div>
</main>
