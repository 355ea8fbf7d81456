module Core
  # Who may give somebody another address. It decides where all their mail goes, so it is not for whoever has invited
  # them as well.
  module GuestAddress
    module_function

    # @param guest [Boolean] whether they have no account
    # @param admin [Boolean] whether an admin does it
    # @param keeper_id [String] who keeps the series it is done in
    # @param keepers [Array<String>] keys of all who have invited them to something
    # @raise [Conflict]
    def refuse(guest:, admin:, keeper_id:, keepers:)
      unless guest
        words = "Only guests can be given another address here. An admin can do it under People & places."
        raise Conflict.new(words, code: "not-a-guest")
      end
      return if admin || (keepers - [keeper_id]).empty?

      words = "Others have invited this guest too. An admin can give them another address."
      raise Conflict.new(words, code: "others-guest")
    end
  end
end
