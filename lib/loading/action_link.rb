module Loading
  # The private link by which an owner says how an action goes: it belongs to one person and one action, and is worth
  # something as long as that is theirs.
  class ActionLink
    # @param own [Integer, nil] how often the person has renewed their links
    def self.path(action_id, person_id, own = nil)
      "/action/#{action_id}/#{person_id}/#{PrivateLink.token(:action, action_id, person_id: person_id, serial: own)}"
    end

    # So many stand in one mail.
    LISTED = 30

    # Actions as a mail to one of their owners says them.
    # @param actions [Array<Records::ActionItem>] with their series
    # @return [Array<Hash>] text, series, due_on and path
    def self.rows(actions, person)
      actions.first(LISTED).map do |action|
        {text: action.text, series: action.series.title, due_on: action.due_on,
         path: path(action.id, person.id, person.link_serial)}
      end
    end

    attr_reader :action_id, :person_id

    # @raise [Core::NotFound] when the link is not, or no more, worth anything
    def initialize(action_id:, person_id:, token:, now:)
      PrivateLink.check(PrivateLink.token(:action, action_id, person_id: person_id), token)
      raise Core::NotFound unless Records::ActionOwner.exists?(action_item_id: action_id, person_id: person_id)

      topic_id = Records::ActionItem.where(id: action_id).pick(:topic_id)
      raise Core::NotFound if ClosedTopics.hides?(topic_id, person_id)

      PrivateLink.check_end(:action, Records::ActionItem.where(id: action_id).pick(:closed_at), now)
      @action_id, @person_id = action_id, person_id
    end
  end
end
