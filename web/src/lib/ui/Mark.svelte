<!-- The sign: bar lines and two dots, drawn here. -->
<svg viewBox="0 0 20 20" class="h-5 w-5" aria-hidden="true">
  <rect x="2" y="1" width="4" height="18" fill="currentColor" />
  <rect x="8.4" y="1" width="1.3" height="18" fill="currentColor" />
  <circle cx="14.6" cy="6.8" r="1.9" class="fill-seal" />
  <circle cx="14.6" cy="13.2" r="1.9" class="fill-seal" />
</svg>
