<?php

declare(strict_types=1);

namespace App\Edits\Commands;

use App\Edits\EditCommand;
use App\Edits\EditContext;
use App\Edits\RowColumns;
use App\Scenes\SceneRows;
use App\Scenes\StoredRow;
use CrispReel\Core\Document\Rate;
use CrispReel\Core\Staging\Retime;
use Illuminate\Support\Facades\DB;

/**
 * Rate and picture shape of the whole production. A new rate keeps every beat, cut and key at its time: frames are
 * brought over to the nearest one in all scenes.
 */
final class ProductionSet implements EditCommand
{
    public function name(): string
    {
        return 'production.set';
    }

    public function rules(): array
    {
        return [
            'rate' => 'sometimes|array|size:2', 'rate.*' => 'integer|min:1', 'width' => 'sometimes|integer|min:64|max:4096',
            'height' => 'sometimes|integer|min:64|max:4096', 'sayAs' => 'sometimes|array|max:500', 'sayAs.*' => 'nullable|string|max:120',
        ];
    }

    public function apply(EditContext $scene, array $in): string
    {
        $production = $scene->scene->production;
        $values = array_intersect_key($in, ['width' => 1, 'height' => 1]);
        if (is_array($in['rate'] ?? null)) {
            $new = new Rate((int) $in['rate'][0], (int) $in['rate'][1]);
            $old = new Rate((int) $production->rate_num, (int) $production->rate_den);
            $values += ['rate_num' => $new->num, 'rate_den' => $new->den];
            $this->retime($scene, $production->scenes()->pluck('id')->all(), $new->perSecond() / $old->perSecond());
        }
        if (is_array($in['sayAs'] ?? null)) {
            $values['say_as'] = self::spoken($production->say_as, $in['sayAs']);
        }
        if ($values !== []) {
            $scene->rows->update('productions', $production->id, $values);
            $scene->scene->unsetRelation('production');
        }

        return match (true) {
            isset($in['rate']) => 'Set the frame rate', isset($in['sayAs']) => 'Say a word otherwise', default => 'Set the picture size',
        };
    }

    /**
     * Words that voices say otherwise, with those that were told before; nothing takes one back.
     *
     * @param  array<array-key, mixed>  $words
     */
    private static function spoken(?string $before, array $words): string
    {
        $all = json_decode($before ?? '{}', true);
        $all = is_array($all) ? $all : [];
        foreach ($words as $written => $spoken) {
            $all[mb_strtolower(trim((string) $written))] = $spoken;
        }

        return json_encode(
            (object) array_filter($all, static fn (mixed $v): bool => is_string($v) && trim($v) !== ''), JSON_THROW_ON_ERROR,
        );
    }

    /** @param  array<int, mixed>  $scenes */
    private function retime(EditContext $scene, array $scenes, float $factor): void
    {
        foreach (SceneRows::classes() as $table => $class) {
            foreach (DB::table($table)->whereIn('scene_id', $scenes)->orderBy('id')->get() as $row) {
                $new = Retime::of($class, StoredRow::document($class, (array) $row), $factor);
                if ($new !== []) {
                    $scene->rows->update($table, (int) $row->id, RowColumns::stored($class, $new));
                }
            }
        }
    }
}
