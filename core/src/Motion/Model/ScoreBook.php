<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\CoreFailure;
use CrispReel\Core\Kit\Motions\Everyday;
use CrispReel\Core\Kit\Motions\Feelings;
use CrispReel\Core\Kit\Motions\Floor;
use CrispReel\Core\Kit\Motions\Pairs;
use CrispReel\Core\Kit\Motions\Work;
use RuntimeException;

/**
 * All scores of the house by name.
 *
 * @phpstan-import-type Sheet from Score
 */
final class ScoreBook
{
    /** @var array<string, Sheet>|null */
    private static ?array $all = null;

    /** @return array<string, Sheet> */
    public static function all(): array
    {
        return self::$all ??= Everyday::scores() + Feelings::scores() + Floor::scores() + Work::scores() + Pairs::scores();
    }

    /** @return Sheet */
    public static function sheet(string $name): array
    {
        return self::all()[$name] ?? throw new class("There is no score \"{$name}\".") extends RuntimeException implements CoreFailure
        {
            public function reason(): string
            {
                return 'motion.score';
            }

            public function remedy(): string
            {
                return 'Choose a motion from the kit.';
            }
        };
    }
}
