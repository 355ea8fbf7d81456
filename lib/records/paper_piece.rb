module Records
  # Part of a paper, at most Core::Paper::PIECE_BYTES long.
  class PaperPiece < Base
    belongs_to :paper, class_name: "Records::Paper"
  end
end
