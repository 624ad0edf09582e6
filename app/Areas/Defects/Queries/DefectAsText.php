<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Defect;

/**
 * A defect as text, to carry elsewhere.
 */
final class DefectAsText
{
    public function markdown(Defect $defect): string
    {
        return "# {$defect->key} {$defect->title}\n\n{$this->facts($defect, '- **%s:** %s')}\n\n{$defect->body}\n";
    }

    public function plain(Defect $defect): string
    {
        $body = preg_replace(['/^#+ (.*)$/m', '/\*\*(.+?)\*\*/'], ['$1', '$1'], $defect->body);

        return "{$defect->key} {$defect->title}\n\n{$this->facts($defect, '%s: %s')}\n\n{$body}\n";
    }

    private function facts(Defect $defect, string $line): string
    {
        $zone = (string) DB::table('projects')->where('id', $defect->project_id)->value('time_zone');
        $facts = [
            'State' => str_replace('_', ' ', $defect->state->value),
            'Severity' => $defect->severity,
            'Reported by' => $defect->reporter->name,
            'Reported' => $defect->created_at->copy()->setTimezone($zone)->format('Y-m-d H:i') . " {$zone}",
        ];

        return implode("\n", array_map(static fn(string $k, string $v): string => \sprintf($line, $k, $v), array_keys($facts), $facts));
    }
}
