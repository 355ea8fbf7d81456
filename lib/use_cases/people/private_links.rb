module UseCases
  # Private links of somebody, all made new when one of them has gone to somebody else.
  class PrivateLinks < Base
    # So many series stand in the mail; of more, each further mail holds its link.
    LISTED = 40

    # The old ones are worth nothing from now on; the new ones go to their address.
    def renew(person_id)
      write do
        person = find(Records::Person.lock, person_id)
        person.update!(link_serial: person.link_serial + 1)
        Outbox.new(clock: @clock).put(
          reason: "links:#{person.id}:#{person.link_serial}", to: person,
          **Mailing::LinksNote.parts(links: links(person))
        )
      end
      nil
    end

    private

    # To series that still meet. @return [Array<Array(String, String)>] titles and addresses
    def links(person)
      member = Records::SeriesMember.where(person_id: person.id).select(:series_id)
      coming = Records::Meeting.coming(now).where(series_id: member).distinct.pluck(:series_id)
      found = Records::Series.where(id: coming).where.not(told_at: nil).order(:title, :id).limit(LISTED).to_a
      paths = Loading::AnswerLink.paths(found.map(&:id), person.id)
      found.map { |series| [series.title, "#{Settings.origin}#{paths.fetch(series.id)}"] }
    end
  end
end
