module Loading
  # Who has invited somebody to something: those who keep the series, polls and open hours they are in.
  module GuestKeepers
    module_function

    # @return [Array<String>] keys
    def of(person_id)
      member = Records::SeriesMember.where(person_id: person_id).select(:series_id)
      once = Records::Substitute.where(person_id: person_id).joins(:meeting).select("meetings.series_id")
      polls = Records::PollPerson.where(person_id: person_id).select(:time_poll_id)
      (
        Records::Series.where(id: member).or(Records::Series.where(id: once)).pluck(:keeper_id) +
          Records::TimePoll.where(id: polls).pluck(:kept_by_id) +
          Records::Booking.where(person_id: person_id).pluck(:host_ids).flatten
      ).uniq
    end
  end
end
