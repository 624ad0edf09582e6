<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Defects\Queries;

use Illuminate\Support\Facades\DB;
use LucidStep\App\Models\Defect;
use LucidStep\Core\Defects\Report;

/**
 * A defect as text, to carry elsewhere.
 */
final class DefectAsText
{
    /** @var array<string, string> time zones, by project */
    private array $zones = [];

    public function markdown(Defect $defect): string
    {
        return "# {$defect->key} {$defect->title}\n\n{$this->report($defect)->markdown()}";
    }

    public function plain(Defect $defect): string
    {
        return "{$defect->key} {$defect->title}\n\n{$this->report($defect)->plain()}";
    }

    private function report(Defect $defect): Report
    {
        $zone = $this->zones[$defect->project_id] ??= (string) DB::table('projects')->where('id', $defect->project_id)->value('time_zone');

        return new Report(
            [
                'State' => str_replace('_', ' ', $defect->state->value),
                'Severity' => $defect->severity,
                'Reported by' => $defect->reporter->name,
                'Reported' => $defect->created_at->copy()->setTimezone($zone)->format('Y-m-d H:i') . " {$zone}",
                'Build' => $defect->build->name ?? '',
                'Configuration' => $defect->configuration->name ?? '',
                'Environment' => $defect->environment,
                'Labels' => implode(', ', $defect->labels),
            ],
            $defect->preconditions,
            $defect->steps,
            $defect->expected,
            $defect->actual,
            $defect->body,
        );
    }
}
