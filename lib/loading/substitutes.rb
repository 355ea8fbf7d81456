require "digest"

module Loading
  # Who comes to one meeting alone, besides those of its series or instead of one of them.
  module Substitutes
    module_function

    # Those of some series who have been told something else than what holds now.
    # @param series [Array<Records::Series>] with keeper, place, members and their people
    # @return [Hash{String => Array<Array(Records::Substitute, Symbol)>}] by series, with :request or :cancel
    def pending(series, now:)
      coming = Records::Meeting.where(series_id: series.map(&:id)).where("ends_at > ?", now)
      known = [*series, *series.flat_map { |one| one.members.map(&:person) }]
      found = Records::Substitute.where(meeting_id: coming.select(:id))
      found = Records::Base.fill(found, :person, :instead_of, {meeting: {series: :held_place}}, known: known)
      found.reject { |one| one.told_digest == digest(one) || (one.told_digest.nil? && off?(one)) }
        .map { |one| [one, off?(one) ? :cancel : :request] }.group_by { |one, _| one.meeting.series_id }
    end

    def off?(substitute) = substitute.meeting.state == "called_off"

    # Of all they are told.
    def digest(substitute)
      meeting = substitute.meeting
      said = [
        meeting.starts_at.to_i, meeting.ends_at.to_i, off?(substitute), meeting.series.title, meeting.location,
        meeting.call&.sign
      ]
      Digest::SHA256.hexdigest(said.join("|"))
    end
  end
end
