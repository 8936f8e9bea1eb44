<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Document\AssetSource;
use CrispReel\Core\Document\Document;

/** Document to CompiledScene: the passes, in the order in which they need each other. */
final class SceneCompiler
{
    /** @var list<class-string<Pass>> */
    private const PASSES = [
        Passes\Order::class, Passes\Places::class, Passes\Lines::class, Passes\Lanes::class, Passes\Drives::class,
        Passes\Length::class, Passes\Faces::class, Passes\TouchUps::class, Passes\Grasps::class, Passes\Holds::class,
        Passes\Lids::class,
        Passes\Carries::class, Passes\Misses::class, Passes\Standers::class, Passes\Cloths::class, Passes\Lamps::class,
        Passes\Framings::class,
    ];

    /**
     * @param  Memory|null  $memory  of whoever compiles one state after the other
     *
     * @throws UnableToCompile
     */
    public static function compile(Document $document, AssetSource $assets, ?Memory $memory = null): CompiledScene
    {
        $memory ??= new Memory;
        $draft = new Draft(SpokenBeats::timed($document, $assets, $memory), $assets, $memory);
        foreach (self::PASSES as $pass) {
            (new $pass)->settle($draft);
        }

        return $draft->scene();
    }
}
