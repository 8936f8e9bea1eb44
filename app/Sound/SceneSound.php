<?php

declare(strict_types=1);

namespace App\Sound;

use App\Assets\BlobStore;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\GivingWay;
use CrispReel\Core\Compile\Heard;
use CrispReel\Core\Compile\Utterance;
use CrispReel\Core\Evaluate\HeardFrom;
use CrispReel\Core\Sound\Cue;
use CrispReel\Core\Sound\Lowering;
use CrispReel\Core\Sound\Mixdown;
use RuntimeException;

/** What is heard of a range of a scene's frames: which sounds, where in the mix, and how loud. */
final class SceneSound
{
    public function __construct(private readonly BlobStore $blobs, private readonly SoundFiles $files)
    {
    }

    public static function isHeard(CompiledScene $scene, int $from, int $to): bool
    {
        return self::spoken($scene, $from, $to) !== [] || self::sounding($scene, $from, $to) !== [];
    }

    /** @return list<Utterance> lines that have a sound and reach into the range */
    private static function spoken(CompiledScene $scene, int $from, int $to): array
    {
        return array_values(array_filter(
            $scene->utterances,
            static fn (Utterance $u): bool => isset($scene->document->assets[$u->line->reading]) && $u->start < $to && $u->end > $from
                && $scene->document->mix->level('speech') !== null,
        ));
    }

    /** @return list<Heard> sounds that reach into the range and are not muted */
    private static function sounding(CompiledScene $scene, int $from, int $to): array
    {
        return array_values(array_filter(
            $scene->heard, static fn (Heard $h): bool => ! $h->sound->muted && $h->start < $to && $h->end > $from
                && $scene->document->mix->level($h->sound->lane) !== null,
        ));
    }

    /** @return list<Cue> the range begins at sample 0 */
    public function cues(CompiledScene $scene, int $from, int $to): array
    {
        $perFrame = Mixdown::RATE / $scene->document->rate->perSecond();
        $places = new HeardFrom($scene);
        $out = [];
        foreach (self::spoken($scene, $from, $to) as $u) {
            $pcm = $this->files->pcm($this->blobs->get($scene->document->assets[$u->line->reading]->blob), 1);
            $out[] = new Cue(
                $pcm, 1, (int) round(($u->start - $from) * $perFrame), 'speech', self::factor($scene, 'speech'),
                placed: self::placed($places->line($u), $from, $perFrame),
            );
        }

        $read = [];
        foreach (self::sounding($scene, $from, $to) as $h) {
            $blob = $scene->document->assets[$h->sound->asset]->blob;
            $read[$blob] ??= $this->files->sides($this->blobs->get($blob));
            $out[] = self::cue($scene, $h, $read[$blob], $from, $perFrame, self::placed($places->sound($h), $from, $perFrame));
        }

        return $out;
    }

    /** Of a lane, and of so many decibels more. */
    private static function factor(CompiledScene $scene, string $lane, float $decibels = 0.0): float
    {
        return 10.0 ** (($scene->document->mix->level($lane) + $decibels) / 20.0);
    }

    /**
     * @param  list<array{float, float, float}>  $places  frames, decibels, sides
     * @return list<array{int, float, float}> in samples of the mix
     */
    private static function placed(array $places, int $from, float $perFrame): array
    {
        return array_map(static fn (array $p): array => [(int) round(($p[0] - $from) * $perFrame), $p[1], $p[2]], $places);
    }

    /**
     * @param  array{string, 1|2}  $read  samples, channels
     * @param  list<array{int, float, float}>  $placed
     */
    private static function cue(CompiledScene $scene, Heard $h, array $read, int $from, float $perFrame, array $placed): Cue
    {
        [$pcm, $channels] = $read;
        $at = static fn (float $s): int => 2 * $channels * (int) round($s * Mixdown::RATE);
        $turn = substr($pcm, $at($h->sound->sourceIn), $at($h->seconds));
        $seconds = static fn (float $s): int => (int) round($s * Mixdown::RATE);

        return new Cue(
            $turn, $channels, (int) round(($h->start - $from) * $perFrame), $h->sound->lane,
            self::factor($scene, $h->sound->lane, $h->sound->level),
            $seconds($h->sound->fadeIn), $seconds($h->sound->fadeOut), (int) round(($h->end - $from) * $perFrame),
            array_map(static fn (array $p): array => [$seconds($p[0]), $p[1]], $h->sound->curve), $placed,
        );
    }

    /**
     * Leaves the range's mix as "mix.wav" in a folder, as loud as it is delivered.
     *
     * @param  float  $loudness  LUFS that are asked for
     * @param  bool  $stems  whether each lane that is heard is left there by itself too, as "speech.wav" and so on
     * @return float LUFS
     */
    public function mix(
        CompiledScene $scene, int $from, int $to, string $folder, float $loudness = Master::LOUDNESS, bool $stems = false,
    ): float {
        $cues = $this->cues($scene, $from, $to);
        $lowering = GivingWay::of($scene, $from);
        $samples = self::samples($scene, $to - $from);
        self::lay("{$folder}/mix.f32", $cues, $samples, $lowering);
        [$now, $gain] = Master::make($folder, Mixdown::RATE, $loudness);
        foreach ($stems ? array_unique(array_column($cues, 'lane')) : [] as $lane) {
            $own = array_values(array_filter($cues, static fn (Cue $c): bool => $c->lane === $lane));
            self::lay("{$folder}/{$lane}.f32", $own, $samples, $lowering);
            Master::stem($folder, $lane, Mixdown::RATE, $gain);
        }

        return $now;
    }

    /** @param  list<Cue>  $cues */
    private static function lay(string $file, array $cues, int $samples, Lowering $lowering): void
    {
        $out = fopen($file, 'wb') ?: throw new RuntimeException('The mix cannot be written; is the disk full?');
        foreach (Mixdown::blocks($cues, $samples, $lowering) as $block) {
            if (fwrite($out, $block) !== strlen($block)) {
                throw new RuntimeException('The mix cannot be written; is the disk full?');
            }
        }
        fclose($out);
    }

    /** Samples of so many frames. */
    public static function samples(CompiledScene $scene, int $frames): int
    {
        return (int) round($frames * Mixdown::RATE / $scene->document->rate->perSecond());
    }
}
