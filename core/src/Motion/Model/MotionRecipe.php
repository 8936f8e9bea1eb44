<?php

declare(strict_types=1);

namespace CrispReel\Core\Motion\Model;

use CrispReel\Core\CoreFailure;
use RuntimeException;

/** A generated motion as small data: which model, with which numbers. Solved for each figure's own proportions. */
final readonly class MotionRecipe
{
    public const MODELS = ['idle', 'walk', 'walkToMark', 'talk', 'wave', 'handOver', 'receive', 'act', 'mount'];

    /** @param  array<string, mixed>  $settings */
    public function __construct(public string $model, public array $settings = [])
    {
        if (! in_array($model, self::MODELS, true)) {
            throw new class("There is no motion model \"{$model}\".") extends RuntimeException implements CoreFailure
            {
                public function reason(): string
                {
                    return 'motion.model';
                }

                public function remedy(): string
                {
                    return 'Use one of: '.implode(', ', MotionRecipe::MODELS).'.';
                }
            };
        }
    }

    /** @param  array<string, mixed>  $settings */
    public function with(array $settings): self
    {
        return $settings === [] ? $this : new self($this->model, $settings + $this->settings);
    }

    public function number(string $name, float $default): float
    {
        $v = $this->settings[$name] ?? $default;

        return is_numeric($v) && is_finite((float) $v) ? (float) $v : $default;
    }

    public function text(string $name): string
    {
        $v = $this->settings[$name] ?? '';

        return is_string($v) ? mb_substr(trim($v), 0, 400) : '';
    }

    /** Metres by which the ground rises under the motion, for a person of 1.70 m: a step up 0.18, a jump down -0.6. */
    public function rise(): float
    {
        return $this->model === 'act' ? ScoreBook::sheet($this->text('score'))['rises'] ?? 0.0 : 0.0;
    }

    /** @return array{model: string, settings: array<string, mixed>} */
    public function toArray(): array
    {
        return ['model' => $this->model, 'settings' => $this->settings];
    }
}
