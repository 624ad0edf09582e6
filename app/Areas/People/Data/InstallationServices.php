<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\People\Data;

use OpenApi\Attributes as OA;

/**
 * What the installation sends mails by and keeps files in, as it is configured; passwords and keys are not told.
 */
#[OA\Schema(description: 'What the installation sends mails by and keeps files in, as it is configured.')]
final readonly class InstallationServices
{
    public function __construct(
        #[OA\Property(description: 'Such as smtp, or catcher, which keeps mails in the demo')] public string $mailer,
        #[OA\Property(description: 'Host and port; empty where there are none')] public string $mail_server,
        #[OA\Property(description: 'Whom mails come from')] public string $mail_from,
        #[OA\Property(description: 'Such as local or s3')] public string $storage,
        #[OA\Property(description: 'Where files lie: a folder or a bucket')] public string $storage_place,
        #[OA\Property(description: 'A reverse proxy that signs people in: its addresses')] public string $proxy,
    ) {}

    public static function now(): self
    {
        $mailer = (string) config('mail.default');
        $disk = (string) config('filesystems.default');
        $of = static fn(string $key): string => (string) (config("mail.mailers.{$mailer}.{$key}") ?? '');
        $place = static fn(string $key): string => (string) (config("filesystems.disks.{$disk}.{$key}") ?? '');

        return new self(
            $mailer,
            '' === $of('host') ? '' : "{$of('host')}:{$of('port')}",
            (string) config('mail.from.address'),
            $disk,
            '' === $place('bucket') ? str_replace(base_path('/'), '', $place('root')) : "{$place('bucket')} at {$place('endpoint')}",
            implode(', ', array_map(strval(...), (array) config('lucid.proxy.addresses'))),
        );
    }
}
