<?php

declare(strict_types=1);

use Illuminate\Foundation\Testing\DatabaseTransactions;
use Tests\BrowserCase;
use Tests\TestCase;

pest()->extend(TestCase::class)->use(DatabaseTransactions::class)->in('Feature');
pest()->extend(BrowserCase::class)->in('Browser');

// What several files of tests use.
foreach ([__DIR__.'/../core/tests/Support/helpers.php', __DIR__.'/../core/tests/Support/meetings.php', __DIR__.'/Support/feature.php', __DIR__.'/Support/browser.php'] as $helpers) {
    require_once $helpers;
}
