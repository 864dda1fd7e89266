<?php

declare(strict_types=1);

namespace Verjuicer\App\EntryPoint\Demo;

use Verjuicer\App\Operations\Alarm\Contact;
use Verjuicer\App\Operations\Alarm\DutyRoster;
use Verjuicer\App\Site\Site\Site;

/** Who is on duty in the demo, and made-up numbers to reach them by. */
final readonly class DemoDuty
{
    private const PHONES = ['MR' => '+1 555 0101', 'IT' => '+1 555 0102', 'DF' => '+1 555 0103', 'OQ' => '+1 555 0104'];

    public function __construct(private DutyRoster $duty)
    {
    }

    public function load(Site $site): void
    {
        $days = range(1, 7);
        foreach ($this->duty->contacts($site) as $contact) {
            $phone = self::PHONES[$contact->initials] ?? '';
            if ($phone !== '') {
                $this->duty->keepContact($site, $contact->accountId, '', $phone);
            }
            $this->shift($site, $contact, $days);
        }
    }

    /** @param list<int> $days */
    private function shift(Site $site, Contact $contact, array $days): void
    {
        if ($contact->initials === 'MR') {
            $this->duty->addShift($site, $contact->accountId, $days, '06:00', '21:00', 1);
            $this->duty->addShift($site, $contact->accountId, $days, '21:00', '06:00', 2);
        }
        if ($contact->initials === 'IT') {
            $this->duty->addShift($site, $contact->accountId, $days, '21:00', '06:00', 1);
        }
    }
}
