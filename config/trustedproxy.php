<?php

declare(strict_types=1);

// Addresses, with commas, of what stands in front and ends TLS; only what they say of the caller is believed.
return ['proxies' => env('REEL_TRUSTED_PROXIES')];
