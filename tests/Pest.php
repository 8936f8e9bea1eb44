<?php

declare(strict_types=1);

use Illuminate\Foundation\Testing\DatabaseTransactions;
use Tests\BrowserCase;
use Tests\TestCase;

pest()->extend(TestCase::class)->use(DatabaseTransactions::class)->in('Feature');
pest()->extend(BrowserCase::class)->in('Browser');

// What several files of tests use.
foreach ([
    '/../core/tests/Support/helpers',
    '/../core/tests/Support/meetings',
    '/../core/tests/Support/bodies',
    '/Support/feature',
    '/Support/browser',
] as $helpers) {
    require_once __DIR__."{$helpers}.php";
}
