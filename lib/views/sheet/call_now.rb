module Views
  # What is on in the call of a meeting: who is in, and who waits at the door.
  module CallNow
    module_function

    # @param meeting [Records::Meeting]
    # @param people [Array<Hash>] of the sheet, with id
    # @return [Hash, nil] nil where no call is made here
    def of(meeting, people)
      return unless meeting.call_ours

      call, presence = Records::Call.of(meeting), Loading::CallPresence.of(meeting.id)
      open = meeting.series.door.opening(meeting.interval)
      slots = Records::RowSlot.standing.where(meeting_id: meeting.id).pluck(:person_id)
      asked, through = people.map { |one| one[:id] } + slots, presence.got_through
      {
        made: call&.state == "made", opens_at: open.starts_at, closes_at: open.ends_at, plain: plain(call),
        here: presence.people.select(&:in?).map { |one| here(one, asked) },
        waiting: presence.waiting.map { |one| {visit: one.key, name: one.name, since: one.waits_at} },
        unlisted: presence.people.reject { |one| asked.include?(one.person) }.map { |one| here(one, asked) },
        recording: presence.recording?, tried: through & asked
      }
    end

    def here(person, asked)
      {
        visit: person.visits.first || person.last_visit, name: person.name, since: person.spans.first.first,
        listed: asked.include?(person.person), person_id: person.person
      }
    end

    # The link anybody can use, with the passcode, for the text to copy.
    def plain(call)
      return unless call&.url

      Core::Invitation::Call.new(url: call.url, passcode: call.passcode, dial_in: call.dial_in,
        ours: nil).to_h.except(:ours)
    end
  end
end
