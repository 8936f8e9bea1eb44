<?php

declare(strict_types=1);

return [
    'default' => 'reel',
    'disks' => [
        // Blobs, solved motions, pose blocks and rendered frames: a folder, or a bucket of any S3-compatible store.
        'reel' => env('REEL_DISK', 'local') === 's3'
            ? [
                'driver' => 's3', 'key' => env('AWS_ACCESS_KEY_ID'), 'secret' => env('AWS_SECRET_ACCESS_KEY'),
                'region' => env('AWS_DEFAULT_REGION'),
                'bucket' => env('AWS_BUCKET'), 'endpoint' => env('AWS_ENDPOINT'), 'throw' => true,
                // Names of buckets in the path, and no more checksums than asked for: what stores of other makers take too.
                'use_path_style_endpoint' => (bool) env('AWS_USE_PATH_STYLE_ENDPOINT', env('AWS_ENDPOINT') !== null),
                'request_checksum_calculation' => 'when_required', 'response_checksum_validation' => 'when_required',
                'retries' => 2, 'http' => ['connect_timeout' => 5, 'timeout' => 120],
            ]
            : ['driver' => 'local', 'root' => env('REEL_STORE', storage_path('app')), 'throw' => true],
        'local' => ['driver' => 'local', 'root' => storage_path('app'), 'throw' => true],
    ],
    'links' => [],
];
