<template>
  <div class="grid h-full place-items-center text-center">
    <div>
      <h1 class="font-serif text-title font-semibold">There is nothing at this address</h1>
      <p class="mt-1 text-muted">The link may be old, or a letter of it may be missing.</p>
      <RouterLink class="btn mt-4" to="/sources">To the sources</RouterLink>
    </div>
  </div>
</template>
