<template>
  <svg width="38" height="22" viewBox="0 0 38 22" aria-hidden="true">
    <path d="M2 8h7M17 8h5M30 8h6" stroke="var(--ink)" stroke-width="2" />
    <circle cx="13" cy="8" r="3.6" fill="var(--pine)" />
    <circle cx="26" cy="8" r="3.4" fill="none" stroke="var(--pine)" stroke-width="2.4" />
    <path d="M13 12c0 5 4 7 9 7" fill="none" stroke="var(--carried)" stroke-width="2.6" stroke-linecap="round" />
  </svg>
</template>
