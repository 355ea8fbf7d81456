module Views
  # What stands at the private addresses of a person: when they are busy, and their meetings here.
  class Feeds < Base
    BACK_DAYS = 31
    AHEAD_DAYS = 366

    # @param ways_in [#call, nil] series and key of a person → addresses that lead into their calls, by series
    def initialize(ways_in: nil, **rest)
      super(**rest)
      @ways_in = ways_in
    end

    def show(person_id)
      person = find(Records::Person, person_id)
      {
        open: person.feeds_open,
        addresses: (addresses(person) if person.feeds_open)
      }
    end

    # @return [String, nil] the calendar object; nil when the address is not (or no more) worth anything
    def read(kind, person_id, given)
      person = Records::Person.find_by(id: person_id, feeds_open: true) or return
      return unless Loading::FeedAddress.right?(person, kind, given)

      (kind == "busy") ? busy(person) : meetings(person)
    end

    private

    def addresses(person)
      Loading::FeedAddress::KINDS.to_h { |kind| [kind, Loading::FeedAddress.of(person, kind)] }
    end

    # A whole day is the finest step of what is published, so that an unchanged calendar is byte for byte the same.
    def window = [
      Time.at(now.to_i / 86_400 * 86_400 - BACK_DAYS * 86_400).utc,
      Time.at(now.to_i / 86_400 * 86_400 + AHEAD_DAYS * 86_400).utc
    ]

    def busy(person)
      from, to = window
      one = Loading::Availability.new(people: {person.id => :required}, from: from, to: to, now: now).people.first
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
      @into_calls = @ways_in&.call(series, person.id)
      whole = series.select { |one| [one.keeper_id, one.chair_id, *one.members.map(&:person_id)].include?(person.id) }
      found =
        Records::Meeting
          .where(series_id: whole.map(&:id))
          .or(standing_in)
          .where("starts_at < ? and ends_at > ?", to, from)
          .in_order
          .group_by(&:series_id)
      answers =
        Records::Answer
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

    def where(meeting, person)
      return meeting.location if meeting.location

      call = meeting.call
      call&.ours ? @into_calls&.fetch(meeting.series_id) : call&.url
    end

    # A page they can open.
    def page_of(series, meeting, person)
      return Loading::AnswerLink.address(series.id, person.id) if person.guest

      "#{Settings.origin}/#{(role(series, person) == "informed") ? "series/#{series.id}" : "meetings/#{meeting.id}"}"
    end

    def role(series, person) =
      if series.run_by?(person.id)
        "required"
      else
        series.members.find { |member| member.person_id == person.id }&.role
      end

    # Once they are issued, for who may sign in.
    def minutes_of(meeting, person)
      "#{Settings.origin}/api/meetings/#{meeting.id}/minutes.pdf" if meeting.state == "issued" && !person.guest
    end

    def meeting_of(series, meeting, answer, person)
      meeting.association(:series).target = series
      waits = meeting.options.sign_up && Loading::SignUps.of(meeting).wait_of(person.id)
      Core::Invitation::Feed::Meeting.new(
        uid: "meeting-#{meeting.id}@#{Settings.mail_domain}",
        title: series.title,
        location: where(meeting, person),
        url: page_of(series, meeting, person),
        starts_at: meeting.starts_at,
        ends_at: meeting.ends_at,
        called_off: meeting.state == "called_off",
        tentative: answer == "tentative" || !!waits,
        declined: answer == "declined" || role(series, person) == "informed",
        stamp: meeting.updated_at,
        zone: series.zone,
        minutes: minutes_of(meeting, person)
      )
    end
  end
end
