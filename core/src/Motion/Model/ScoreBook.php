<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\CoreFailure;
use CrispReel\Core\Motion\Scores\Alarm;
use CrispReel\Core\Motion\Scores\Blows;
use CrispReel\Core\Motion\Scores\Everyday;
use CrispReel\Core\Motion\Scores\Feelings;
use CrispReel\Core\Motion\Scores\Floor;
use CrispReel\Core\Motion\Scores\Graces;
use CrispReel\Core\Motion\Scores\Habits;
use CrispReel\Core\Motion\Scores\Harm;
use CrispReel\Core\Motion\Scores\Obstacles;
use CrispReel\Core\Motion\Scores\Pairs;
use CrispReel\Core\Motion\Scores\Rest;
use CrispReel\Core\Motion\Scores\Trades;
use CrispReel\Core\Motion\Scores\Work;
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
        return self::$all ??= Everyday::scores() + Feelings::scores() + Floor::scores() + Work::scores() + Pairs::scores() + Blows::scores()
            + Graces::scores() + Alarm::scores() + Habits::scores() + Trades::scores() + Harm::scores()
            + Rest::scores() + Obstacles::scores();
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
