<?php

declare(strict_types=1);

/** What differs from the framework's own settings: where files of the cache lie, for two installations in one folder. */
return [
    'stores' => [
        'file' => [
            'driver' => 'file',
            'path' => env('REEL_CACHE', storage_path('framework/cache/data')),
            'lock_path' => env('REEL_CACHE', storage_path('framework/cache/data')),
        ],
    ],
];
