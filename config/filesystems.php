<?php

declare(strict_types=1);

return [
    'default' => 'reel',
    'disks' => [
        // Blobs, solved motions, pose blocks and rendered frames. "s3" needs league/flysystem-aws-s3-v3.
        'reel' => env('REEL_DISK', 'local') === 's3'
            ? [
                'driver' => 's3', 'key' => env('AWS_ACCESS_KEY_ID'), 'secret' => env('AWS_SECRET_ACCESS_KEY'), 'region' => env('AWS_DEFAULT_REGION'),
                'bucket' => env('AWS_BUCKET'), 'endpoint' => env('AWS_ENDPOINT'), 'throw' => true,
            ]
            : ['driver' => 'local', 'root' => env('REEL_STORE', storage_path('app')), 'throw' => true],
        'local' => ['driver' => 'local', 'root' => storage_path('app'), 'throw' => true],
    ],
    'links' => [],
];
