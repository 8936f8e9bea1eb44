<?php

declare(strict_types=1);

arch('the core reaches for nothing outside itself')->expect('CrispReel\Core')->not->toUse([
    'Illuminate', 'App', 'Facebook', 'Carbon', 'DB', 'now', 'time', 'date', 'rand', 'mt_rand', 'random_int',
]);
arch('everything is strict')->expect(['CrispReel\Core', 'App'])->toUseStrictTypes();
arch('edit commands are small and final')->expect('App\Edits\Commands')->toBeFinal()->toImplement('App\Edits\EditCommand');
arch('nothing is left for debugging')->expect(['dd', 'dump', 'var_dump', 'print_r'])->not->toBeUsed();
arch('core failures carry a reason and a remedy')->expect('CrispReel\Core\Document\UnableToReadDocument')
    ->toImplement('CrispReel\Core\CoreFailure');
