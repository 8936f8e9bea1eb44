<?php

declare(strict_types=1);

return [
    'default' => env('QUEUE_CONNECTION', 'database'),
    'connections' => [
        'sync' => ['driver' => 'sync'],
        // A drawing job works in slices of about a minute, so a killed worker's slice is taken up again after this many seconds.
        'database' => ['driver' => 'database', 'connection' => null, 'table' => 'jobs', 'queue' => 'intake', 'retry_after' => (int) env('REEL_RETRY_AFTER', 150), 'after_commit' => true],
        'redis' => ['driver' => 'redis', 'connection' => 'default', 'queue' => 'intake', 'retry_after' => 150, 'block_for' => null, 'after_commit' => true],
    ],
    'failed' => ['driver' => 'database-uuids', 'database' => 'mariadb', 'table' => 'failed_jobs'],
];
