module Views
  # Open hours as calendar programs read them: when each host may be booked, and when they are taken then.
  class OpenHoursFeed < Base
    AHEAD_DAYS = 62

    # @return [String, nil] the calendar object; nil when the address is not (or no more) worth anything
    def read(id, token)
      open = Loading::OpenHoursLink.open_feed(id, token) or return
      from = Time.at(now.to_i / 86_400 * 86_400).utc
      free = Loading::FreeStarts.new(open, from: from, to: from + AHEAD_DAYS * 86_400, now: from)
      hosts = free.hosts.to_h { |host| [host.id, host] }
      Core::Asking::Published.new(
        uid: "open-hours-#{open.id}@#{Settings.mail_domain}", title: open.title, from: from,
        to: from + AHEAD_DAYS * 86_400, stamp: open.updated_at,
        hosts: open.hosts.filter_map { |host| published(host, hosts[host.person_id]) }
      ).to_ical
    end

    private

    # Whoever has none is reached through the service.
    def address(person) = person.reachable? ? person.email : Settings.mail_from

    def published(host, core)
      return unless core

      Core::Asking::Published::Host.new(
        name: host.person.name, address: address(host.person), zone: host.person.zone,
        week: host.week || host.person.working_hours || Loading::Hours::USUAL, busy: core.taken
      )
    end
  end
end
