<template>
  <span class="flex items-center gap-2 font-head text-[19px] font-bold text-petrol">
    <svg viewBox="0 0 20 20" class="size-5" aria-hidden="true">
      <rect
        x=".75"
        y=".75"
        width="18.5"
        height="18.5"
        rx="4"
        fill="none"
        stroke="currentColor"
        stroke-width="1.5"
      />
      <path d="M1 5a4 4 0 0 1 4-4h5.5v18H5a4 4 0 0 1-4-4z" fill="currentColor" />
      <path d="M12 7l5-4M12 12.500l7-6M12 18l7-6" stroke="currentColor" />
    </svg>
    intavo
  </span>
</template>
