<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Schedule;
use LucidStep\App\Areas\Defects\Tracker\WakeTrackers;
use LucidStep\App\Areas\Notices\Actions\ReportStandstill;
use LucidStep\App\Support\Background\BackgroundWork;

Schedule::command('lucid:tidy')->daily();
Schedule::command('sanctum:prune-expired', ['--hours' => 24 * 30])->daily();
Schedule::call(static fn() => BackgroundWork::alive(BackgroundWork::SCHEDULER))->everyMinute();
Schedule::call(new WakeTrackers())->everyMinute();
Schedule::call(static fn(ReportStandstill $report) => $report->ofWorker())->everyMinute();
