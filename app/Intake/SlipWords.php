<?php

declare(strict_types=1);

namespace App\Intake;

use CrispReel\Core\Document\Finding;
use CrispReel\Core\Document\Severity;

/** What a kept slip says, also one that was written before findings of files and of scenes were said alike. */
final class SlipWords
{
    /**
     * @param  array<string, mixed>  $kept
     * @return array<string, mixed>
     */
    public static function finding(array $kept): array
    {
        if (! isset($kept['text'])) {
            return $kept;
        }
        $finding = Finding::ofFile(
            (string) $kept['code'], Severity::tryFrom((string) $kept['severity']) ?? Severity::Fyi, (string) $kept['text'],
            (string) $kept['effect'], is_array($kept['repair'] ?? null) ? $kept['repair'] : null, (string) ($kept['label'] ?? ''),
            ($kept['safe'] ?? false) === true, names: array_values(array_filter((array) ($kept['names'] ?? []), is_string(...))),
        );

        return (($kept['mended'] ?? false) === true ? $finding->mended() : $finding)->toArray();
    }
}
