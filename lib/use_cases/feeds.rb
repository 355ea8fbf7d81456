require "openssl"

module UseCases
  # A person's private addresses: when they are busy, and their meetings here, for calendar programs outside. The
  # address is the right to read it; closing it, or taking a new one, makes the old worthless.
  class Feeds < Base
    KINDS = %w[busy meetings].freeze
    BACK_DAYS = 31
    AHEAD_DAYS = 366

    def show(person_id)
      person = find(Records::Person, person_id)
      {
        open: person.feeds_open,
        addresses: person.feeds_open ? KINDS.to_h { |kind| [kind, address(person, kind)] } : nil
      }
    end

    # @param open [Boolean] with new addresses each time they are opened
    def set(person_id, open:)
      write do
        find(Records::Person.lock, person_id).tap do |person|
          person.update!(feeds_open: open, feed_serial: person.feed_serial + 1)
        end
      end
      show(person_id)
    end

    # Mails somebody the address of a calendar of all their meetings here: a link of one series alone, which may have
    # been handed on, must not open the others. Pressed again within the hour, it changes nothing.
    def mail_address(person_id)
      write do
        person = find(Records::Person.lock, person_id)
        person.update!(feeds_open: true, feed_serial: person.feed_serial + 1) unless person.feeds_open
        address = address(person, "meetings")
        words =
          "Add this address to your calendar program, and all your meetings stand there and stay right. Keep it to " \
            "yourself: who has it sees them."
        Outbox.new(clock: @clock).put(
          reason: "feed:#{person.id}:#{person.feed_serial}:#{now.to_i / 3_600}",
          to: person,
          **Mailing::Note.parts(
            "Your meetings as a calendar", "Your meetings as a calendar", words, [address, address]
          )
        )
      end
    end

    # @return [String, nil] the calendar object; nil when the address is not (or no more) worth anything
    def read(kind, person_id, given)
      person = Records::Person.find_by(id: person_id, feeds_open: true) or return
      return unless KINDS.include?(kind) && OpenSSL.secure_compare(token(person), given.to_s)

      (kind == "busy") ? busy(person) : meetings(person)
    end

    private

    def address(person, kind) = "#{Settings.origin}/feeds/#{kind}/#{person.id}/#{token(person)}.ics"

    def token(person) =
      OpenSSL::HMAC.hexdigest("SHA256", Settings.secret, "feed:#{person.id}:#{person.feed_serial}")[0, 40]

    # A whole day is the finest step of what is published, so that an unchanged calendar is byte for byte the same.
    def window = [
      Time.at(now.to_i / 86_400 * 86_400 - BACK_DAYS * 86_400).utc,
      Time.at(now.to_i / 86_400 * 86_400 + AHEAD_DAYS * 86_400).utc
    ]

    def busy(person)
      from, to = window
      one = Availability.new(people: {person.id => :required}, from: from, to: to, now: now).people.first
      Core::Invitation::FreeBusy.new(
        uid: "busy-#{person.id}@#{Settings.mail_domain}", name: person.name, address: person.email, from: from,
        to: to, stamp: from, busy: one.busy, tentative: one.tentative
      ).to_ical
    end

    def meetings(person)
      from, to = window
      series = Records::Series.shown_to(person.id).includes(:keeper, :held_place, members: :person)
      standing_in = Records::Meeting.where(id: Records::Substitute.where(person_id: person.id).select(:meeting_id))
      series |=
        Records::Series
          .where(id: standing_in.select(:series_id))
          .includes(:keeper, :held_place, members: :person)
          .to_a
      whole = series.select { |one| [one.keeper_id, one.chair_id, *one.members.map(&:person_id)].include?(person.id) }
      found =
        Records::Meeting
          .where(series_id: whole.map(&:id))
          .or(standing_in)
          .where("starts_at < ? and ends_at > ?", to, from)
          .in_order
          .group_by(&:series_id)
      answers =
        Records::Reply
          .where(person_id: person.id, meeting_id: found.values.flatten.map(&:id))
          .pluck(:meeting_id, :answer)
          .to_h
      Core::Invitation::Feed.new(
        name: "Meetings of #{person.name}",
        meetings:
          series.flat_map do |one|
            (found[one.id] || []).map { |meeting| meeting_of(one, meeting, answers[meeting.id], person) }
          end
      ).to_ical
    end

    # A page they can open.
    def page_of(series, meeting, person)
      return AnswerLinks.address(series.id, person.id) if person.guest

      "#{Settings.origin}/#{(role(series, person) == "informed") ? "series/#{series.id}" : "meetings/#{meeting.id}"}"
    end

    def role(series, person) =
      if [series.keeper_id, series.chair_id].include?(person.id)
        "required"
      else
        series.members.find { |member| member.person_id == person.id }&.role
      end

    def meeting_of(series, meeting, answer, person)
      meeting.association(:series).target = series
      waits = meeting.options.sign_up && SignUps.of(meeting).wait_of(person.id)
      Core::Invitation::Feed::Meeting.new(
        uid: "meeting-#{meeting.id}@#{Settings.mail_domain}",
        title: series.title,
        location: [meeting.location, meeting.call&.url].compact.join(", ").presence,
        url: page_of(series, meeting, person),
        starts_at: meeting.starts_at,
        ends_at: meeting.ends_at,
        called_off: meeting.state == "called_off",
        tentative: answer == "tentative" || !!waits,
        declined: answer == "declined" || role(series, person) == "informed",
        stamp: meeting.updated_at,
        zone: series.zone
      )
    end
  end
end
