<?php

declare(strict_types=1);

namespace CrispReel\Core\Compile;

use CrispReel\Core\Motion\ClipTable;
use CrispReel\Core\Rig\Figure;

/** A motion of a standing body done by one who sits: hips and legs stay as they are, all above them is the motion's. */
final class Seated
{
    /**
     * @param  list<float>  $sits  the row in which the performer sits
     */
    public static function table(Figure $figure, ClipTable $table, array $sits): ClipTable
    {
        $kept = [$figure->hips => true] + array_fill_keys($figure->part('legs'), true);
        $rows = [];
        $end = $table->width - 3;
        for ($f = 0; $f < $table->count; $f++) {
            $row = $table->row($f);
            for ($k = 0; $k < 3; $k++) {
                $row[$k] = $sits[$k];
                $row[$end + $k] = $sits[$end + $k];
            }
            foreach ($kept as $j => $_) {
                for ($k = 3 + 4 * $j, $to = $k + 4; $k < $to; $k++) {
                    $row[$k] = $sits[$k];
                }
            }
            array_push($rows, ...array_values($row));
        }

        return ClipTable::fromRows($table->rate, $table->joints, $table->morphs, $table->count, $rows, $table->loops);
    }
}
